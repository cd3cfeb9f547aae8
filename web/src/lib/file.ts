import type { SystemFile } from './api/client'
import { digits, fromSi, parse, text, toSi, unitFor, type Dimension, type System } from './units'

/** Reading and changing a system file by path ("system.tanks.0.volume_m3"), without ever changing it in place. */
type Plain = Record<string, unknown> | unknown[]
type Entered = Record<string, { text: string; unit: string }>

export function valueAt(file: unknown, path: string): unknown {
  return path.split('.').reduce<unknown>((part, step) => (part as Record<string, unknown> | null)?.[step], file)
}

/** The quantity at a path, to read; a dash where there is none. */
export function figureAt(file: unknown, path: string, dimension: Dimension, system: System): string {
  const value = valueAt(file, path)
  return typeof value === 'number' ? text(value, dimension, system) : '–'
}

function replaced(part: unknown, steps: string[], value: unknown): unknown {
  const [step, ...rest] = steps
  if (step === undefined) return value
  const copy: Plain = Array.isArray(part) ? [...part] : { ...(part as object) }
  const slot = copy as Record<string, unknown>
  slot[step] = replaced(slot[step], rest, value)
  return copy
}

export function withValue(file: SystemFile, path: string, value: unknown): SystemFile {
  return replaced(file, path.split('.'), value) as SystemFile
}

const enteredOf = (file: SystemFile) => (file.entered ?? {}) as Entered

/** The file without what was typed at a path and below it: for parts that are exchanged or taken out as a whole. */
export function withoutEntered(file: SystemFile, path: string): SystemFile {
  const kept = Object.entries(enteredOf(file)).filter(([at]) => at !== path && !at.startsWith(path + '.'))
  return { ...file, entered: Object.fromEntries(kept) }
}

/** What the field shows: the text as typed where it was typed in these units, else the value converted. */
export function shownAt(file: SystemFile, path: string, dimension: Dimension, system: System): string {
  const value = valueAt(file, path)
  if (typeof value === 'string') return value
  if (typeof value !== 'number') return ''
  const unit = unitFor(dimension, system)
  const typed = enteredOf(file)[path]
  if (typed?.unit === unit.id) return typed.text
  const converted = fromSi(value, unit)
  return Math.abs(converted) >= 1000 ? converted.toFixed(0) : digits(converted, unit)
}

/** The file with a text typed at a path. A number is kept both as typed and in SI; anything else is kept as it is, for
 * the server to refuse by name, so that nothing typed is lost. */
export function typedAt(
  file: SystemFile,
  path: string,
  text: string,
  dimension: Dimension,
  system: System,
): SystemFile {
  const bare = withoutEntered(file, path)
  const number = parse(text)
  if (number === null) return withValue(bare, path, text.trim() === '' ? null : text)
  const unit = unitFor(dimension, system)
  const entered = { ...enteredOf(bare), [path]: { text: text.trim(), unit: unit.id } }
  return { ...withValue(bare, path, toSi(number, unit)), entered }
}
