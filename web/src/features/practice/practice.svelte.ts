import {
  api,
  outcome,
  parted,
  type Fault,
  type Problem,
  type Schemas,
  type SystemFile,
} from '../../api/client'
import { enteredAt, typedAt, valueAt, withValue } from '../../domain/file'
import { preferences } from '../../domain/preferences.svelte'
import { editable, listIn, valuesOf, type Entered } from '../../domain/quantity'
import { session } from '../../api/session.svelte'
import { unitFor, type Dimension, type System } from '../../domain/units'

type WorkspacePractice = Schemas['PracticeOut']

/** One workspace's practice and list of sizes as edited, until they are kept. */
export class PracticeState {
  practice = $state.raw<WorkspacePractice>()!
  /** The practice in the shape of a file, so that fields are typed and shown as anywhere else. */
  file = $state.raw<SystemFile>()!
  /** The list of sizes as typed; none as long as it stands as it was kept. */
  #sizes = $state.raw<Entered | undefined>()
  faults = $state.raw<Fault[]>([])
  problem = $state.raw<Problem | undefined>()
  kept = $state(false)

  constructor(practice: WorkspacePractice) {
    this.#take(practice)
  }
  #take(practice: WorkspacePractice) {
    this.practice = practice
    this.file = { practice: practice.practice, entered: {} } as unknown as SystemFile
    this.#sizes = undefined
    this.faults = []
    this.problem = undefined
  }

  value = (path: string): unknown => valueAt(this.file, path)
  entered = (path: string) => enteredAt(this.file, path)
  faultsAt = (path: string) => this.faults.filter((fault) => fault.path === path)
  type(path: string, text: string, dimension: Dimension) {
    this.file = typedAt(this.file, path, text, dimension, preferences.units)
    this.kept = false
  }
  put(path: string, value: unknown) {
    this.file = withValue(this.file, path, value)
    this.kept = false
  }

  /** The list of sizes in a unit system. */
  sizesIn(system: System): string {
    const unit = unitFor('volume', system)
    if (this.#sizes) return listIn(unit, this.#sizes)
    return (this.practice.sizes_m3 ?? []).map((size) => editable(size, unit)).join(' ')
  }
  typeSizes(text: string) {
    this.#sizes = { text, unit: unitFor('volume', preferences.units).id }
    this.kept = false
  }

  async save() {
    const got = await outcome(
      api.PUT('/api/practices/{workspace_id}', {
        params: {
          path: { workspace_id: this.practice.workspace },
          query: { units: preferences.units },
        },
        body: {
          version: this.practice.version,
          practice: this.file.practice!,
          // What is no number is sent as it is, for the server to name.
          sizes_m3: (this.#sizes ? valuesOf(this.#sizes) : this.practice.sizes_m3) as
            number[] | null,
        },
      }),
    )
    if (got.problem?.status === 401) session.ended()
    if (got.data) this.#take(got.data)
    ;[this.faults, this.problem] = parted(got.problem)
    this.kept = got.data !== undefined
  }

  /** After somebody else was first: look at what they kept. */
  takeTheirs() {
    const current = this.problem?.current as unknown as WorkspacePractice | undefined
    if (current) this.#take({ ...this.practice, ...current })
  }
}
