import { svelte } from '@sveltejs/vite-plugin-svelte'
import tailwindcss from '@tailwindcss/vite'
import pyodide from 'pyodide/package.json' with { type: 'json' }
import { defineConfig } from 'vitest/config'

/** What most pages share, in one file instead of a dozen small ones: each one asked for costs a slow line its delay. */
const TOGETHER = [
  {
    name: 'base',
    minShareCount: 2,
    test: /node_modules\/(svelte|esm-env|sv-router|openapi-fetch)\/|src\/(api\/(client|query|session|connection)|device\/(ask|person|token|versions)\.ts|ui\/(TopBar|Keys|Segmented|typing)|domain\/(preferences|units)\.)/,
  },
]

export default defineConfig({
  base: '/static/',
  define: { __PYODIDE__: JSON.stringify(pyodide.version) },
  worker: { format: 'es' },
  plugins: [tailwindcss(), svelte()],
  build: {
    manifest: 'manifest.json',
    rollupOptions: { input: 'src/main.ts', output: { codeSplitting: { groups: TOGETHER } } },
    modulePreload: { polyfill: false },
  },
  server: { origin: 'http://127.0.0.1:5173', strictPort: true },
  resolve: process.env.VITEST ? { conditions: ['browser'] } : {},
  test: {
    environment: 'happy-dom',
    environmentOptions: { happyDOM: { url: 'http://127.0.0.1/' } },
    include: ['src/**/*.test.ts'],
  },
})
