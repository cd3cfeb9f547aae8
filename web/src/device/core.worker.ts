import { expose } from 'comlink'
import type { loadPyodide, PyodideInterface } from 'pyodide'
import core from '../../packed/core.json?url'
import { dropSnapshots, keepSnapshot, keptSnapshot } from './snapshots'

/** Python in the page: the same core as on the server, in a worker of its own, so that nothing it works out holds the page up. */
const HOME = `${import.meta.env.BASE_URL}assets/pyodide-${__PYODIDE__}/`

let whatIf: (name: string, asked: string, units: string) => string
let offline: (asked: string) => string
let python: PyodideInterface

async function load(way: { _makeSnapshot: true } | { _loadSnapshot: Uint8Array }) {
  const module = (await import(/* @vite-ignore */ `${HOME}pyodide.mjs`)) as {
    loadPyodide: typeof loadPyodide
  }
  python = await module.loadPyodide({ indexURL: HOME, ...way })
}

async function importCore() {
  const got = await fetch(core)
  if (!got.ok) throw new Error(`the core was not found (${got.status})`)
  const files = (await got.json()) as Record<string, string>
  const root = '/core'
  for (const [path, text] of Object.entries(files)) {
    const at = `${root}/${path}`
    python.FS.mkdirTree(at.slice(0, at.lastIndexOf('/')))
    python.FS.writeFile(at, text)
  }
  python.runPython(`import sys; sys.path.insert(0, ${JSON.stringify(root)})`)
  python.runPython('import zerodip.answers.offline, zerodip.answers.what_if_json')
}

function take() {
  whatIf = python.pyimport('zerodip.answers.what_if_json').answer_what_if as typeof whatIf
  offline = python.pyimport('zerodip.answers.offline').answer_offline as typeof offline
}

/** Whether Python stands again as it was kept, and answers. */
async function restored(snapshot: Uint8Array): Promise<boolean> {
  try {
    await load({ _loadSnapshot: snapshot })
    take()
    return whatIf('decide', '{}', 'us').startsWith('422')
  } catch {
    await dropSnapshots()
    return false
  }
}

async function start() {
  const kept = await keptSnapshot(core)
  if (kept && (await restored(kept))) return
  await load({ _makeSnapshot: true })
  await importCore()
  if (globalThis.caches) keepSnapshot(core, python.makeMemorySnapshot())
  take()
}
const started = start()

const desk = {
  /** Resolves once questions are answered; rejects where Python cannot run here. */
  ready: () => started,
  whatIf: async (name: string, asked: string, units: string) => {
    await started
    return whatIf(name, asked, units)
  },
  /** A request answered from what is held: see zerodip.answers.offline. */
  offline: async (asked: string) => {
    await started
    return offline(asked)
  },
}
export type Desk = typeof desk
expose(desk)
