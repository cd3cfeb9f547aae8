import type { Schemas } from '../api/client'
import { text, type Dimension, type System } from './units'
import { eighths } from './turns'

const TITLES: Record<string, string> = {
  try: 'Cut-in and cut-out seen',
  lap: 'Pump run',
  bucket: 'Bucket test',
  leak: 'Leak watch',
  drain: 'Drain series',
  note: 'Remark',
  'set.turned': 'Turns made',
  'air.left': 'Pre-charge left',
  'air.inflator': 'Inflator',
  'air.cap': 'Valve cap',
  'prove.dip': 'Dip seen',
}
const DIMENSIONS: Record<string, Dimension> = { 'air.inflator': 'air_flow' }
/** By the unit that ends a name: _gauge_pa, _s, _m3. */
const ENDS: [RegExp, Dimension][] = [
  [/_pa$/, 'pressure'],
  [/(_s|seconds)$/, 'duration'],
  [/_m3$/, 'volume'],
]

export function fieldTitle(view: Schemas['VisitView'], slot: string): string {
  return view.read.find((field) => field.slot === slot)?.title ?? TITLES[slot] ?? slot
}

/** A recorded value in words, whatever its slot. */
export function inWords(slot: string, value: unknown, units: System): string {
  if (value === null || value === undefined) return 'none'
  if (typeof value === 'number') return text(value, DIMENSIONS[slot] ?? 'pressure', units)
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (Array.isArray(value)) return `${value.length} readings`
  if (typeof value === 'object') return parts(value as Record<string, unknown>, units)
  return String(value)
}

function parts(value: Record<string, unknown>, units: System): string {
  const { first, second, ...rest } = value
  const turns = [first, second].filter(
    (turn): turn is number => typeof turn === 'number' && turn !== 0,
  )
  const said = Object.entries(rest).flatMap(([name, each]) => {
    const dimension = ENDS.find(([end]) => end.test(name))?.[1]
    return typeof each === 'number' && dimension
      ? [text(each, dimension, units)]
      : typeof each === 'string'
        ? [each]
        : []
  })
  return (
    [said.join(' / '), ...turns.map((turn) => `${eighths(turn)} turn`)]
      .filter(Boolean)
      .join(', ') || 'nothing'
  )
}
