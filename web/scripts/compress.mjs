/** Everything that is text is compressed once, so that no request waits for it. */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliCompressSync, constants, gzipSync } from 'node:zlib'

const TEXT = /\.(js|mjs|css|json|svg|wasm|webmanifest)$/
const PARAMS = { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } }
for (const path of readdirSync('dist', { recursive: true }).filter((path) => TEXT.test(path))) {
  const data = readFileSync(join('dist', path))
  if (data.length < 1000) continue
  writeFileSync(join('dist', `${path}.br`), brotliCompressSync(data, PARAMS))
  writeFileSync(join('dist', `${path}.gz`), gzipSync(data, { level: 9 }))
}
