import type { Schemas } from '../../api/client'

type Numbers = (number | null)[]

/** A window and a prediction on one axis of time, as the plot wants them: time, least, most, predicted. A gap stays a gap. */
export function series(
  line: Schemas['LineOut'] | undefined,
  predicted: Schemas['PredictedOut'] | undefined,
  shown: (pa: number) => number,
): [number[], Numbers, Numbers, Numbers] {
  const rows: [number, number | null, number | null, number | null][] = []
  const value = (pa: number | null | undefined) => (pa == null ? null : shown(pa))
  let before: number | undefined
  const usual = usualStep(line?.time_s ?? [])
  line?.time_s.forEach((time, at) => {
    if (before !== undefined && time - before > Math.max(line.gap_s, 3 * usual))
      rows.push([(before + time) / 2, null, null, null])
    rows.push([time, value(line.least_pa[at]), value(line.most_pa[at]), null])
    before = time
  })
  if (predicted) {
    const own = predicted.time_s.map((time, at): [number, number] => [
      time,
      predicted.gauge_pa[at]!,
    ])
    for (const row of rows) row[3] = value(at(own, row[0]))
  }
  return [0, 1, 2, 3].map((column) => rows.map((row) => row[column]!)) as ReturnType<typeof series>
}

/** Bars from least to most, each as wide as to the next and joined to the one before: left, top, width, height. */
export function bars(
  [times, least, most]: readonly [number[], Numbers, Numbers, Numbers],
  x: (time: number) => number,
  y: (value: number) => number,
): [number, number, number, number][] {
  const made: [number, number, number, number][] = []
  times.forEach((time, at) => {
    const [low, high] = [least[at], most[at]]
    if (low == null || high == null) return
    const left = x(time)
    const until = least[at + 1] == null ? left + 1 : x(times[at + 1]!)
    const top = y(Math.max(high, least[at - 1] ?? high))
    const bottom = y(Math.min(low, most[at - 1] ?? low))
    made.push([left, top, Math.max(until - left, 1), Math.max(bottom - top, 1)])
  })
  return made
}

/** How far apart buckets usually are: the middle of the steps. */
function usualStep(times: number[]): number {
  const steps = times.slice(1).map((time, at) => time - times[at]!)
  steps.sort((a, b) => a - b)
  return steps[Math.floor(steps.length / 2)] ?? 0
}

/** A polyline's value at a time; null beyond its ends. */
function at(points: [number, number][], time: number): number | null {
  const next = points.findIndex(([each]) => each >= time)
  if (next < 0 || (next === 0 && points[0]![0] > time)) return null
  const [t1, p1] = points[next]!
  const [t0, p0] = points[Math.max(next - 1, 0)]!
  return t1 === t0 ? p1 : p0 + ((p1 - p0) * (time - t0)) / (t1 - t0)
}
