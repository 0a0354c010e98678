/** What all plots share: the workroom's colours and type, and axes whose marks the server gave. */
export const font = { fontFamily: "'IBM Plex Sans Variable', sans-serif", fontSize: 16, color: '#10242b' }
export const ink = {
  ink: '#10242b',
  petrol: '#155e68',
  line: '#9fb0b6',
  pale: '#cbd6da',
  warm: '#a8261c',
  gold: '#f0b429',
}

interface Tick {
  at: number
  text: string
}

/** An upright axis with just these marks. */
export function axisOf(ticks: readonly Tick[]) {
  const values = ticks.map((t) => t.at)
  const apart = values.length > 1 ? values[1]! - values[0]! : 1
  return {
    type: 'value' as const,
    min: Math.min(...values),
    max: Math.max(...values),
    interval: apart,
    axisLabel: {
      ...font,
      formatter: (v: number) => ticks.find((t) => Math.abs(t.at - v) < apart / 100)?.text ?? '',
    },
    splitLine: { lineStyle: { color: ink.pale } },
  }
}

/** A level line with words at its end. */
export const level = (at: number, colour = ink.ink, type: 'solid' | 'dashed' = 'solid') => ({
  yAxis: at,
  lineStyle: { color: colour, type, width: 1.5 },
  label: { show: false },
})
