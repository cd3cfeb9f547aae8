/** What the bundler leaves to do: Python beside the page. */
import { copyFileSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const PYODIDE = 'node_modules/pyodide'
const { version } = JSON.parse(readFileSync(join(PYODIDE, 'package.json')))
const home = `dist/assets/pyodide-${version}`
mkdirSync(home, { recursive: true })
const FILES = ['pyodide.mjs', 'pyodide.asm.mjs', 'pyodide.asm.wasm', 'python_stdlib.zip']
for (const file of FILES) copyFileSync(join(PYODIDE, file), join(home, file))
// The list of further packages: none is used.
const lock = JSON.parse(readFileSync(join(PYODIDE, 'pyodide-lock.json')))
writeFileSync(join(home, 'pyodide-lock.json'), JSON.stringify({ ...lock, packages: {} }))
copyFileSync('packed/version.json', 'dist/version.json')
