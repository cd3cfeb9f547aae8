import type { Schemas } from '../../lib/api/client'

type Correctable = NonNullable<Schemas['VisitOut']['late']>['correctable'][number]

/** The record that puts a reading of a closed visit right; undefined where nothing changes. */
export function corrected({ slot, field, entry, value, gauge_pa }: Correctable, now: unknown) {
  if (now === null || now === gauge_pa) return undefined
  const whole = field ? { ...(value as Record<string, unknown>), [field]: now } : now
  return { slot, value: whole, supersedes: entry }
}
