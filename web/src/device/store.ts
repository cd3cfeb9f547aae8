import Dexie, { type Table } from 'dexie'

/** One system as the server last told it, packed: five hundred of them are to fit a phone. */
export interface HeldRow {
  id: string
  stamp: string
  /** The ids of its visits, by which it is found. */
  visits: string[]
  packed: Uint8Array
}
/** A write that waits to be sent, or was sent since its system was last fetched (`done`). Its `system` tells what it is about;
 * empty for sites. `at` is by this device's clock, whatever that is worth. */
export interface Write {
  seq?: number
  id: string
  system: string
  method: string
  path: string
  query: string
  body: unknown
  photo?: Blob
  /** The photo was sent small; as it is, it follows. */
  draft?: 1
  /** What this device worked out for it, to be compared with what the server does. */
  shown?: Shown
  at: string
  /** How often a server broke on it. */
  tries?: number
  done: 0 | 1
}
export interface Shown {
  verdict: string
  figures: Record<string, number | null>
}
/** A write that was refused for good, with the reason: to be read and taken along, never sent again. */
export type RefusedWrite = Write & { title: string; detail: string }
/** What somebody else recorded where something of ours arrived later. */
export interface StoredClash {
  seq?: number
  visit: string
  clash: unknown
}
interface Meta {
  name: string
  value: unknown
}

/** What lies on this device for one person. */
export class Store extends Dexie {
  held!: Table<HeldRow, string>
  writes!: Table<Write, number>
  refused!: Table<RefusedWrite, number>
  clashes!: Table<StoredClash, number>
  /** Answers to questions about everything, as text, by path. */
  answers!: Table<{ path: string; body: string }, string>
  meta!: Table<Meta, string>

  constructor(readonly person: number) {
    super(`zerodip-${person}`)
    this.version(1).stores({
      held: 'id, *visits',
      writes: '++seq, id, system, done',
      refused: '++seq',
      clashes: '++seq, visit',
      answers: 'path',
      meta: 'name',
    })
  }
  async get<T>(name: string): Promise<T | undefined> {
    return (await this.meta.get(name))?.value as T | undefined
  }
  async set(name: string, value: unknown) {
    await this.meta.put({ name, value })
  }
  /** How many writes have not reached the server. */
  waiting(): Promise<number> {
    return this.writes.where('done').equals(0).count()
  }
  /** How many photos of those the server has small only. */
  following(): Promise<number> {
    return this.writes
      .where({ done: 0 })
      .and((each) => each.draft === 1)
      .count()
  }
}

async function through(data: Uint8Array | string, way: GenericTransformStream) {
  const stream = new Blob([data as BlobPart]).stream().pipeThrough(way)
  return new Uint8Array(await new Response(stream).arrayBuffer())
}
export const packed = (text: string) => through(text, new CompressionStream('gzip'))
export const unpacked = async (data: Uint8Array) =>
  new TextDecoder().decode(await through(data, new DecompressionStream('gzip')))
