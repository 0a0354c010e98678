import type { Schemas } from '@/shared/api/client'

/** How wide to show a quilt so that all of it is in sight at once. */
export const fit = (drawing: Schemas['Drawing'], wide = 780, high = 580) =>
  Math.min(wide, Math.round((high * (drawing.window[2] ?? 1)) / (drawing.window[3] ?? 1)))
