/** Times before this are counted from the recording's start, not since 1970. */
const COUNTED_S = 1e8
export const isCounted = (time: number) => time < COUNTED_S

/** Clocks are kept: to make one takes longer than to draw a picture. */
const clocks = new Map<string, Intl.DateTimeFormat>()
/** A time by a zone's clock. */
export function byClock(time: number, zone: string, as: Intl.DateTimeFormatOptions): string {
  const key = zone + JSON.stringify(as)
  const clock = clocks.get(key) ?? new Intl.DateTimeFormat('en-GB', { timeZone: zone, ...as })
  clocks.set(key, clock)
  return clock.format(time * 1000)
}
