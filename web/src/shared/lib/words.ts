/** The craft's words for codes that cross the wire. Wording only; no rule and no arithmetic. */
export const schoolWords: Record<string, { name: string; line: string }> = {
  exact: { name: 'Exact', line: 'least cloth, nothing to spare' },
  little: { name: 'Trim a little', line: 'what most people do' },
  generous: { name: 'Generous', line: 'for wandering seams and slippery cloth' },
  own_margin: { name: 'Your margin', line: 'so much off each side' },
  records: { name: 'Your records', line: '99 in 100 can be trimmed, by your own seam' },
}

/** Causes, with what a slider of it means to the left and to the right. */
export const causeWords: Record<string, { name: string; less: string; more: string }> = {
  seam: { name: 'Stitching distance', less: 'narrow', more: 'wide' },
  start: { name: 'Drift at the start of seams', less: 'narrow', more: 'wide' },
  end: { name: 'Drift at the end of seams', less: 'narrow', more: 'wide' },
  fold: { name: 'Fold', less: 'none', more: 'swallows' },
  trim: { name: 'Trimmed size', less: 'small', more: 'large' },
  shift: { name: 'Off the diagonal', less: 'one way', more: 'the other' },
  one_seam: { name: 'One seam', less: 'narrow', more: 'deep' },
  one_unit: { name: 'One unit', less: 'small', more: 'large' },
  tip: { name: 'Clearance above the tip', less: 'too little', more: 'too much' },
  cut: { name: 'Cut size', less: 'small', more: 'large' },
  stretch: { name: 'Stretch on the bias', less: 'drawn in', more: 'stretched' },
}

/** What can be read: its name, what it is read on, and just where the ruler lies. */
export const readingWords: Record<string, { name: string; on: string; where: string }> = {
  cut: {
    name: 'A piece as cut',
    on: 'unit',
    where: 'one side of a piece, cut edge to cut edge, before it is sewn',
  },
  raw_width: {
    name: 'Raw width',
    on: 'unit',
    where: 'the unit sewn, pressed and not yet trimmed: across it as it is made',
  },
  raw_height: {
    name: 'Raw height',
    on: 'unit',
    where: 'the unit sewn, pressed and not yet trimmed: up and down it as it is made',
  },
  width: {
    name: 'Trimmed width',
    on: 'unit',
    where: 'raw edge to raw edge through its middle, across the unit as it is made, however it lies',
  },
  height: {
    name: 'Trimmed height',
    on: 'unit',
    where: 'raw edge to raw edge through its middle, up and down the unit as it is made, however it lies',
  },
  diagonal_rising: {
    name: 'Diagonal, rising',
    on: 'unit',
    where: 'from its lower left to its upper right raw corner, not pulled',
  },
  diagonal_falling: {
    name: 'Diagonal, falling',
    on: 'unit',
    where: 'from its upper left to its lower right raw corner, not pulled',
  },
  miss: {
    name: 'Diagonal past the corner',
    on: 'corner',
    where:
      'the ruler on the diagonal seam, drawn out to the raw edge: how far from the corner it passes, square to it',
  },
  clearance: {
    name: 'Tip to raw edge',
    on: 'tip',
    where: 'before joining: from the tip straight to the raw edge it points at',
  },
  stitch: {
    name: 'Raw edge to stitching',
    on: 'seam',
    where: 'on the back, allowance lifted flat: from the raw edge to the stitches',
  },
  strip_test: {
    name: 'Strip test',
    on: 'none',
    where:
      'three strips of one width, sewn and pressed to one side: the middle one seam to seam, then all three',
  },
  row: {
    name: 'Row',
    on: 'feature',
    where: 'joined, pressed and lying flat: raw edge to raw edge along the line shown',
  },
  column: {
    name: 'Column',
    on: 'feature',
    where: 'joined, pressed and lying flat: raw edge to raw edge along the line shown',
  },
  edge_tip: {
    name: 'Tip to its seam',
    on: 'feature',
    where: 'on the front after joining: from the tip to the seam it should touch',
  },
  corner_tip: {
    name: 'Diagonal to its corner',
    on: 'feature',
    where: 'on the front after joining: along the seam, from the corner to where the diagonal ends',
  },
  crossing: {
    name: 'Step at a crossing',
    on: 'feature',
    where: 'on the front after joining: along the seam, from one seam end to the other',
  },
  wavy: { name: 'It lies wavy', on: 'seen', where: '' },
  bowed: { name: 'A row is bowed', on: 'seen', where: '' },
  shadow: { name: 'Dark cloth shows through', on: 'seen', where: '' },
  frayed: { name: 'Edges fray', on: 'seen', where: '' },
  picture_wrong: { name: 'The picture is wrong', on: 'seen', where: '' },
  right_when_turned: { name: 'It comes right when a unit is turned', on: 'seen', where: '' },
  seam_inside_out: { name: 'An allowance shows on the front', on: 'seen', where: '' },
  two_alike: { name: 'Two units alike where mirrored ones are wanted', on: 'seen', where: '' },
}

export const rungWords: Record<string, string> = {
  cut: 'Cut',
  raw: 'Raw',
  trimmed: 'Trimmed',
  finished: 'Finished',
}

/** Kinds of unit: one, many, and what it is in a line. */
export const kindWords: Record<string, { name: string; many: string; line: string }> = {
  half_square_triangle: {
    name: 'Half-square triangle',
    many: 'half-square triangles',
    line: 'two triangles on one diagonal',
  },
  quarter_square_triangle: {
    name: 'Hourglass',
    many: 'hourglasses',
    line: 'four triangles round a crossing',
  },
  split_quarter_square_triangle: {
    name: 'Split hourglass',
    many: 'split hourglasses',
    line: 'one half, two quarters',
  },
  flying_goose: { name: 'Flying goose', many: 'geese', line: 'a large triangle between two of sky' },
  corner_triangle: {
    name: 'Corner-triangle unit',
    many: 'corner-triangle units',
    line: 'a square with flipped corners',
  },
  strip_split_square: {
    name: 'Strip-split square',
    many: 'strip-split squares',
    line: 'a strip down the diagonal',
  },
  square_in_square: { name: 'Square in a square', many: 'squares in squares', line: 'a square on its point' },
  banded_hourglass: {
    name: 'Banded hourglass',
    many: 'banded hourglasses',
    line: 'two quarters, a band and a triangle',
  },
  pieced_half: { name: 'Pieced half', many: 'units with a pieced half', line: 'a small square in one half' },
  four_patch: { name: 'Four-patch', many: 'four-patches', line: 'four squares' },
  plain_square: { name: 'Plain square', many: 'plain squares', line: 'one piece of cloth' },
  rectangle: { name: 'Rectangle', many: 'rectangles', line: 'one piece of cloth' },
  strip: { name: 'Strip', many: 'strips', line: 'one long piece' },
}

/** Ways of making a unit; the same name may mean another thing for another kind. */
export const methodWords = (kind: string, method: string): { name: string; line: string } =>
  methods[`${kind}/${method}`] ?? methods[method] ?? { name: method.replaceAll('_', ' '), line: '' }

const methods: Record<string, { name: string; line: string }> = {
  pair: { name: 'Pair', line: 'two at a time, both sides of a diagonal' },
  four: { name: 'Four from a pair', line: 'sewn right round; bias outside' },
  'flying_goose/four': { name: 'Four at a time', line: 'one large square, four small' },
  eight: { name: 'Eight from a pair', line: 'both sides of both diagonals' },
  loose_triangles: { name: 'Loose triangles', line: 'any hand; bias edges to handle' },
  flipped_corner: { name: 'Flipped square', line: 'exact; leaves a spare' },
  flipped_corners: { name: 'Flipped corners', line: 'exact; the cut-offs make spares' },
  two_flipped_corners: { name: 'Two flipped corners', line: 'exact; two spares each' },
  two_half_square_triangles: { name: 'Two half-squares', line: 'laid together, seams nested' },
  'flying_goose/two_half_square_triangles': { name: 'Two half-squares', line: 'a seam down the middle' },
  two_half_square_triangles_trimmed: { name: 'Two half-squares, trimmed', line: 'true corners in between' },
  unit_and_square: { name: 'Half-square and square', line: 'one of each hand' },
  templates: { name: 'Paper templates', line: 'any ratio' },
  strip: { name: 'Strip set in', line: 'square cut once' },
  corner_triangles: { name: 'Four triangles', line: 'round a centre square' },
  triangles: { name: 'Triangles on a square', line: 'long edge trued, then joined' },
  squares: { name: 'Squares', line: 'two rows of two' },
  strips: { name: 'Strips', line: 'sewn in pairs, cut across' },
  cut: { name: 'Cut', line: 'nothing to sew' },
}

/** Names of cut sizes. */
export const cutWords: Record<string, string> = {
  square: 'squares',
  plain: 'plain squares',
  trimmed: 'trimmed between',
  half: 'half triangles',
  quarter: 'quarter triangles',
  large: 'large squares',
  small: 'small squares',
  wide: 'width',
  tall: 'height',
  corner: 'corner squares',
  corner_0: 'lower left corner',
  corner_1: 'lower right corner',
  corner_2: 'upper right corner',
  corner_3: 'upper left corner',
  strip: 'strip width',
  strip_length: 'strip length',
  band: 'band width',
  band_length: 'band length',
  centre: 'centre square',
  triangle: 'triangle squares',
  half_square: 'half-square squares',
  goose_wide: 'goose, wide',
  goose_tall: 'goose, high',
  sky_wide: 'sky, wide',
  sky_tall: 'sky, high',
}

/** Kinds of cloth, and a usual size of each to begin with. */
export const clothWords: Record<string, { name: string; across: string; along: string }> = {
  yardage: { name: 'Yardage', across: '40 in', along: '36 in' },
  fat_quarter: { name: 'Fat quarter', across: '20 in', along: '18 in' },
  square: { name: 'Precut square', across: '10 in', along: '10 in' },
  strip: { name: 'Precut strip', across: '40 in', along: '2 1/2"' },
  scrap: { name: 'Scrap', across: '8 in', along: '8 in' },
}

export const goalWords: Record<string, string> = {
  least: 'least fabric',
  fewest: 'fewest cuts',
  spare: 'spare the large pieces',
}

/** Orders of joining. */
export const orderWords: Record<string, { name: string; line: string }> = {
  rows: { name: 'Rows', line: 'each row, then row to row' },
  columns: { name: 'Columns', line: 'each column, then column to column' },
  pairs: { name: 'Pairs', line: 'pairs, then pairs of pairs' },
  sections: { name: 'Sections', line: 'squarish sections, joined to larger ones' },
}

export const dimensionWords: Record<string, string> = {
  size: 'Size',
  width: 'Width',
  height: 'Height',
  half: 'Half unit',
}

export const plural = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`
