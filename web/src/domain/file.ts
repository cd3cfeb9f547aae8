import type { SystemFile } from '../api/client'
import { editable, typed, type Entered } from './quantity'
import { text, unitFor, type Dimension, type System } from './units'

/** Reading and changing a system file by path ("system.tanks.0.volume_m3"), without ever changing it in place. */
type Plain = Record<string, unknown> | unknown[]

export function valueAt(file: unknown, path: string): unknown {
  return path
    .split('.')
    .reduce<unknown>((part, step) => (part as Record<string, unknown> | null)?.[step], file)
}

/** The part at a path: an object's values by field; none where there is no object. */
export function partAt(file: unknown, path: string): Record<string, unknown> {
  const found = valueAt(file, path)
  return typeof found === 'object' && found !== null ? { ...found } : {}
}

/** The parts of a list at a path; none where there is no list. */
export function partsAt(file: unknown, path: string): Record<string, unknown>[] {
  const found = valueAt(file, path)
  return Array.isArray(found) ? found : []
}

/** The quantity at a path, to read; a dash where there is none. */
export function figureAt(
  file: unknown,
  path: string,
  dimension: Dimension,
  system: System,
): string {
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

const allEntered = (file: SystemFile): Record<string, Entered> => file.entered ?? {}

/** What was typed at a path, where it is known. */
export const enteredAt = (file: SystemFile, path: string): Entered | undefined =>
  allEntered(file)[path]

const below = (path: string, at: string) => at === path || at.startsWith(path + '.')
const marks = (file: SystemFile) => partAt(file, 'system.assumed')

/** The paths at and below one at which a usual value stands that nobody read. */
export const assumedUnder = (file: SystemFile, path: string): string[] =>
  Object.keys(marks(file)).filter((at) => below(path, at))

/** The file with what stands at a path and below it read or set, and no usual value any more. */
export function withRead(file: SystemFile, path: string): SystemFile {
  if (!assumedUnder(file, path).length) return file
  const kept = Object.entries(marks(file)).filter(([at]) => !below(path, at))
  return withValue(file, 'system.assumed', Object.fromEntries(kept))
}

/** The file without what was noted at a path and below it, as typed or as a usual value: for what is about to be changed. */
export function withoutNotes(file: SystemFile, path: string): SystemFile {
  const kept = Object.entries(allEntered(file)).filter(([at]) => !below(path, at))
  return withRead({ ...file, entered: Object.fromEntries(kept) }, path)
}

/** What the field shows: the text as typed where it was typed in these units, else the value converted. */
export function shownAt(
  file: SystemFile,
  path: string,
  dimension: Dimension,
  system: System,
): string {
  return editable(valueAt(file, path), unitFor(dimension, system), enteredAt(file, path))
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
  const { value, unit } = typed(text, dimension, system)
  const changed = withValue(withoutNotes(file, path), path, value)
  if (typeof value !== 'number') return changed
  return { ...changed, entered: { ...allEntered(changed), [path]: { text: text.trim(), unit } } }
}
