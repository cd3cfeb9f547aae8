import js from '@eslint/js'
import svelte from 'eslint-plugin-svelte'
import globals from 'globals'
import ts from 'typescript-eslint'
import svelteConfig from './svelte.config.js'

export default ts.config(
  { ignores: ['dist/', 'node_modules/', 'src/api/generated/'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...svelte.configs.recommended,
  { languageOptions: { globals: { ...globals.browser } } },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: {
      parserOptions: { parser: ts.parser, extraFileExtensions: ['.svelte'], svelteConfig },
    },
  },
  {
    // lib serves the features and never knows them
    files: ['src/lib/**'],
    rules: { 'no-restricted-imports': ['error', { patterns: ['**/features/**'] }] },
  },
  { rules: { 'svelte/no-navigation-without-resolve': 'off' } },
)
