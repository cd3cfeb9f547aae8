import { expose } from 'comlink'
import type { loadPyodide, PyodideInterface } from 'pyodide'
import core from '../../packed/core.json?url'

/** Python in the page: the same core as on the server, in a worker of its own, so that nothing it works out holds the page up. */
const HOME = `${import.meta.env.BASE_URL}assets/pyodide-${__PYODIDE__}/`

let whatIf: (name: string, asked: string, units: string) => string
let offline: ((asked: string) => string) | undefined
let python: PyodideInterface

async function sources(): Promise<Record<string, string>> {
  const got = await fetch(core)
  if (!got.ok) throw new Error(`the core was not found (${got.status})`)
  return (await got.json()) as Record<string, string>
}

function unpack(files: Record<string, string>) {
  const root = '/core'
  for (const [path, text] of Object.entries(files)) {
    const at = `${root}/${path}`
    python.FS.mkdirTree(at.slice(0, at.lastIndexOf('/')))
    python.FS.writeFile(at, text)
  }
  python.runPython(`import sys; sys.path.insert(0, ${JSON.stringify(root)})`)
}

async function start() {
  const found = sources()
  const module = (await import(/* @vite-ignore */ `${HOME}pyodide.mjs`)) as {
    loadPyodide: typeof loadPyodide
  }
  python = await module.loadPyodide({ indexURL: HOME })
  unpack(await found)
  whatIf = python.pyimport('zerodip.answers.what_if_json').answer_what_if as typeof whatIf
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
    offline ??= python.pyimport('zerodip.answers.offline').answer_offline as typeof offline
    return offline!(asked)
  },
}
export type Desk = typeof desk
expose(desk)
