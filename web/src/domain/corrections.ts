import type { Schemas } from '../api/client'

type Correctable = Schemas['Correctable']

/** The record that puts a reading of a closed visit right; undefined where nothing changes. */
export function corrected({ slot, field, entry, value, gauge_pa }: Correctable, now: unknown) {
  if (now === null || now === gauge_pa) return undefined
  const whole = field ? { ...(value as Record<string, unknown>), [field]: now } : now
  return { slot, value: whole, supersedes: entry }
}
