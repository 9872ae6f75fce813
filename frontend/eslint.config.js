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

/**
 * Codes of the core: what follows from one is decided there and comes as a flag or a word. They are compared
 * nowhere here but in drawings, which give each its shape.
 */
const CODES = [
  'inside|outside|too_close|not_read|shut|limited|conforming',
  'power_on|crank|fuel_on|fire|run_on|gear|drive|ready',
  'begun|skipped|not_applicable|not_there|waits|let go|left out|no step|missing|differs|same|will_do|not_seen',
  'check|inspect|remove|tighten|fill|run|fastener|finding|concession|temporary|danger|load|reason|thing',
  'steering|brakes|suspension|wheels|shafts|fuel|restraints|lifting',
  'feeler|micrometer|bore gauge|caliper|indicating wrench|torque|angle|pressure|hook|soak|refused|clash|agrees',
  'conflict|assumed|not given|own|owned|odd_figure|logged_already|source_asked|sheet|take_down',
].join('|')
const literal = `Literal[value=/^(${CODES})$/]`
const codes = [
  `BinaryExpression[operator=/^[!=]==$/] > ${literal}`,
  `CallExpression[callee.property.name='includes'][callee.object.type='ArrayExpression'] ${literal}`,
  `SwitchCase > ${literal}`,
].map((selector) => ({ selector, message: 'a code of the core is not compared here: ask for a flag' }))

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
  {
    files: ['src/**/*.{ts,vue}'],
    ignores: ['src/drawings/**', 'src/**/*.test.ts'],
    rules: {
      'no-restricted-syntax': ['error', ...codes],
      'vue/no-restricted-syntax': ['error', ...codes],
    },
  },
)
