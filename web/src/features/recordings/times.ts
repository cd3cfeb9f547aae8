/** Times before this are counted from the recording's start, not since 1970. */
const COUNTED_S = 1e8
export const isCounted = (time: number) => time < COUNTED_S

/** A time by a zone's clock. */
export const byClock = (time: number, zone: string, as: Intl.DateTimeFormatOptions) =>
  new Date(time * 1000).toLocaleString('en-GB', { timeZone: zone, ...as })
