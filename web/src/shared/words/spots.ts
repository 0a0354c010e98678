/** Where along any seam, for seams that nobody points at. */
export const spots = [
  { value: 'start' as const, label: 'where it begins' },
  { value: 'middle' as const, label: 'in its middle' },
  { value: 'end' as const, label: 'where it ends' },
]
