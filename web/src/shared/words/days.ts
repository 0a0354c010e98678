/** Days and moments as one says them; what is typed and sent keeps its own form. */
const WHOLE_DAY = { day: 'numeric', month: 'long', year: 'numeric' } as const
const MINUTE = { hour: '2-digit', minute: '2-digit' } as const

/** "25 November 2026", of a day (2026-11-25) or of the moment's day. */
export const dayWords = (iso: string) =>
  // A day alone would be read as midnight in Greenwich, and be the day before in half of the world.
  new Date(iso.length === 10 ? `${iso}T12:00` : iso).toLocaleDateString('en-GB', WHOLE_DAY)

/** "25 November 2026 at 19:30". */
export const momentWords = (iso: string) => new Date(iso).toLocaleString('en-GB', { ...WHOLE_DAY, ...MINUTE })
