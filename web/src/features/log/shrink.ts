const widest = 1600

/** A photo made small enough to keep, upright, as a data address. Undefined for a file that is no photo. */
export async function shrunk(file: File): Promise<string | undefined> {
  try {
    const picture = await createImageBitmap(file)
    const scale = Math.min(1, widest / Math.max(picture.width, picture.height))
    const canvas = document.createElement('canvas')
    canvas.width = Math.max(1, Math.round(picture.width * scale))
    canvas.height = Math.max(1, Math.round(picture.height * scale))
    canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height)
    return canvas.toDataURL('image/jpeg', 0.82)
  } catch {
    return undefined
  }
}
