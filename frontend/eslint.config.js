import js from '@eslint/js'
import { defineConfig } from 'eslint/config'
import pluginVue from 'eslint-plugin-vue'
import tseslint from 'typescript-eslint'

/** Which folders may not be imported from where: what stands below knows nothing of what stands above. */
const above = (files, ...folders) => ({
  files: [`src/${files}/**/*.{ts,vue}`],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          { regex: `^(@|\\.\\.)/(${folders.join('|')})(/|$)`, message: `${files} stand below that` },
        ],
      },
    ],
  },
})

export default defineConfig(
  above('api', 'stores', 'composables', 'drawings', 'benches', 'shell', 'views'),
  above('drawings', 'stores', 'composables', 'benches', 'shell', 'views'),
  above('stores', 'drawings', 'benches', 'shell', 'views'),
  above('composables', 'benches', 'shell', 'views'),
  above('shell', 'benches', 'views'),
  above('benches', 'views'),
  { ignores: ['src/api/schema.ts', 'src/components.d.ts'] },
  {
    files: ['public/*.js'],
    languageOptions: { globals: { self: 'readonly', caches: 'readonly', fetch: 'readonly' } },
  },
  js.configs.recommended,
  tseslint.configs.recommended,
  pluginVue.configs['flat/essential'],
  {
    files: ['**/*.ts', '**/*.vue'],
    languageOptions: { parserOptions: { parser: tseslint.parser, extraFileExtensions: ['.vue'] } },
  },
  {
    rules: {
      'no-undef': 'off',
      'vue/no-ref-as-operand': 'error',
      eqeqeq: 'error',
      'vue/max-len': ['error', { code: 110, template: 110 }],
    },
  },
)
