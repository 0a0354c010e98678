/** The craft's words for codes that cross the wire. Wording only; no rule and no arithmetic. */
export const schoolWords: Record<string, { name: string; line: string }> = {
  exact: { name: 'Exact', line: 'least cloth, nothing to spare' },
  little: { name: 'Trim a little', line: 'what most people do' },
  generous: { name: 'Generous', line: 'for wandering seams and slippery cloth' },
  own_margin: { name: 'Your margin', line: 'so much off each side' },
  records: { name: 'Your records', line: '99 in 100 can be trimmed, by your own seam' },
}

export const readingWords: Record<string, { name: string; short: string; where: string }> = {
  unit_width: { name: 'Unit width', short: 'width', where: 'trimmed, raw edge to raw edge' },
  unit_height: { name: 'Unit height', short: 'height', where: 'trimmed, the other way' },
  raw_size: { name: 'Raw size', short: 'raw', where: 'sewn and pressed, before trimming' },
  row_length: { name: 'Row length', short: 'row', where: 'units joined and pressed, raw edge to raw edge' },
  stitch_distance: {
    name: 'Stitching distance',
    short: 'stitch',
    where: 'on the back, raw edge to stitches',
  },
  strip_test: { name: 'Strip test', short: 'strip', where: 'three strips: the middle one, then all three' },
}

export const causeWords: Record<string, { name: string; line: string }> = {
  seam: { name: 'Stitching distance', line: 'the seam lies off the nominal allowance' },
  fold: { name: 'Fold', line: 'what pressing a seam over swallows' },
  trim: { name: 'Trimmed size', line: 'units trimmed off the target' },
  cut: { name: 'Cut size', line: 'pieces cut off the plan; no effect once trimmed' },
}

export const rungWords: Record<string, string> = {
  cut: 'Cut',
  raw: 'Raw',
  trimmed: 'Trimmed',
  finished: 'Finished',
}

export const plural = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`
