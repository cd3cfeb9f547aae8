/** A day as people write it here: Nov 25, 2026. */
export const day = (at: string | Date) =>
  new Date(at).toLocaleDateString([], { dateStyle: 'medium' })

/** A date without a time (2026-11-25), the same day wherever it is read. */
export const dayOn = (date: string) => day(`${date}T12:00`)

/** The core's seconds since 1970 as a date. */
export const dateOf = (seconds: number) => new Date(seconds * 1000)

/** This moment by the device's clock, as requests tell it. */
export const stamp = () => new Date().toISOString()
