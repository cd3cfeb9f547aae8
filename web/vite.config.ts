import { svelte } from '@sveltejs/vite-plugin-svelte'
import tailwindcss from '@tailwindcss/vite'
import pyodide from 'pyodide/package.json' with { type: 'json' }
import { defineConfig } from 'vitest/config'

export default defineConfig({
  base: '/static/',
  define: { __PYODIDE__: JSON.stringify(pyodide.version) },
  worker: { format: 'es' },
  plugins: [tailwindcss(), svelte()],
  build: {
    manifest: 'manifest.json',
    rollupOptions: { input: 'src/main.ts' },
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
