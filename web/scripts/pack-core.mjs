/** Packs the Python core into one file that the page's worker reads: its sources by path. Only what changes changes its name. */
import { createHash } from 'node:crypto'
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const CORE = '../core'
const sources = readdirSync(join(CORE, 'zerodip'), { recursive: true })
  // Recordings are read by the server alone: with numpy, which the page does not carry.
  .filter((path) => path.endsWith('.py') && !path.startsWith('recording'))
  .sort()
  .map((path) => [`zerodip/${path}`, readFileSync(join(CORE, 'zerodip', path), 'utf8')])
const packed = JSON.stringify(Object.fromEntries(sources))
const contract = readFileSync('../docs/openapi.json')
const version = createHash('sha256').update(packed).update(contract).digest('hex').slice(0, 12)

mkdirSync('packed', { recursive: true })
writeFileSync('packed/core.json', packed)
/** Tells whether a page and a server belong together: the core and the API that both know. */
writeFileSync('packed/version.json', JSON.stringify({ version }))
