import js from '@eslint/js'
import svelte from 'eslint-plugin-svelte'
import globals from 'globals'
import ts from 'typescript-eslint'
import svelteConfig from './svelte.config.js'

/** Tables out of the core are anybody's. */
const TABLES = ['!**/api/generated', '!**/api/generated/**']

export default ts.config(
  { ignores: ['dist/', 'packed/', 'node_modules/', 'src/api/generated/'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...svelte.configs.recommended,
  { languageOptions: { globals: { ...globals.browser } } },
  { files: ['scripts/**'], languageOptions: { globals: globals.node } },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: {
      parserOptions: { parser: ts.parser, extraFileExtensions: ['.svelte'], svelteConfig },
    },
  },
  // From the outside in: features, charts and ui, domain, api, device; none knows what lies outside it.
  ...Object.entries({
    device: ['api', 'domain', 'ui', 'charts', 'features'],
    api: ['domain', 'ui', 'charts', 'features'],
    domain: ['ui', 'charts', 'features'],
    ui: ['charts', 'features'],
    charts: ['features'],
  }).map(([layer, outside]) => ({
    files: [`src/${layer}/**`],
    rules: {
      'no-restricted-imports': [
        'error',
        { patterns: [...outside.map((each) => `**/${each}/**`), ...TABLES] },
      ],
    },
  })),
  { rules: { 'svelte/no-navigation-without-resolve': 'off' } },
)
