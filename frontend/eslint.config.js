import js from '@eslint/js'
import { defineConfig } from 'eslint/config'
import pluginVue from 'eslint-plugin-vue'
import tseslint from 'typescript-eslint'

export default defineConfig(
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
