import { readdirSync, readFileSync } from 'node:fs'
import { createHash } from 'node:crypto'
import { join } from 'node:path'
import { defineConfig } from 'vite'

/** What the service worker keeps: everything the page is made of, hashed names as they are, the page itself by all of them. */
const assets = readdirSync('dist/assets', { recursive: true, withFileTypes: true })
  .filter((each) => each.isFile() && !/\.(br|gz|map)$/.test(each.name))
  .map((each) => join(each.parentPath, each.name).replace('dist/', '/static/'))
  .sort()
const others = ['mark.svg', 'icon-192.png', 'app.webmanifest'].map((name) => ({
  url: `/static/${name}`,
  revision: createHash('sha256')
    .update(readFileSync(join('dist', name)))
    .digest('hex')
    .slice(0, 8),
}))
const whole = createHash('sha256').update(assets.join()).digest('hex').slice(0, 12)
const kept = [
  { url: '/', revision: whole },
  ...others,
  ...assets.map((url) => ({ url, revision: null })),
]

export default defineConfig({
  define: { 'self.__WB_MANIFEST': JSON.stringify(kept), 'process.env.NODE_ENV': '"production"' },
  publicDir: false,
  build: {
    emptyOutDir: false,
    outDir: 'dist',
    lib: { entry: 'src/device/sw.ts', formats: ['iife'], name: 'sw', fileName: () => 'sw.js' },
  },
})
