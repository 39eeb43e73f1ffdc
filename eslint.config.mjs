import importX, { createNodeResolver } from 'eslint-plugin-import-x'
import withNuxt from './.nuxt/eslint.config.mjs'

/** One direction: app → core, server → core, never back; app and server meet only in the HTTP contract of core. */
const zones = [
  {
    target: './core',
    from: ['./app', './server', './demo', './ops', './e2e'],
    message: 'core imports nothing of the project outside core',
  },
  {
    target: './app',
    from: ['./server', './demo', './ops', './e2e'],
    message: 'app meets the server only in the HTTP contract, core/http',
  },
  { target: './server', from: ['./app', './ops', './e2e'], message: 'server imports core, never app' },
]

export default withNuxt(
  { ignores: ['.output/**', '.nuxt/**', 'node_modules/**', 'test-results/**', 'ops/main.mjs'] },
  // the formatter leaves comments as long as they are
  { rules: { 'max-len': ['error', { code: 1000, comments: 120, ignoreUrls: true }] } },
  {
    files: ['core/**/*.ts', 'app/**/*.{ts,vue}', 'server/**/*.ts'],
    plugins: { 'import-x': importX },
    settings: { 'import-x/resolver-next': [createNodeResolver({ extensions: ['.ts', '.vue', '.mjs', '.js'] })] },
    rules: { 'import-x/no-restricted-paths': ['error', { basePath: import.meta.dirname, zones }] },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: [
                'vue',
                'vue/*',
                '@vue/*',
                'nuxt',
                'nuxt/*',
                '#app',
                '#app/*',
                '#imports',
                'pinia',
                'h3',
                'kysely',
                'pg',
                'node:*',
                '@nuxt/*',
                '@vueuse/*',
                '~/*',
                '@/*',
              ],
              message: 'core is pure TypeScript: no interface, server, database or Node.js',
            },
          ],
        },
      ],
    },
  },
  {
    // values go into a statement by Kysely's own way, which never takes them for its words
    files: ['server/**/*.ts', 'demo/**/*.ts'],
    ignores: ['server/db/migrations/**', 'server/db/attempts.ts', '**/*.test.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector:
            'MemberExpression[object.name="sql"][property.name=/^(raw|lit)$/], MemberExpression[object.name="CompiledQuery"][property.name="raw"]',
          message: 'no raw SQL: let Kysely put values in',
        },
        {
          selector: 'CallExpression[callee.property.name="query"] > TemplateLiteral[expressions.length>0]',
          message: 'no statement made of text: let Kysely put values in',
        },
      ],
    },
  },
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      'vue/multi-word-component-names': 'off',
      'vue/html-self-closing': 'off',
      'vue/no-multiple-template-root': 'off',
    },
  },
)
