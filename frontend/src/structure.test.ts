import { ESLint } from 'eslint'
import { describe, expect, it } from 'vitest'

const eslint = new ESLint()
async function found(filePath: string, code: string): Promise<string[]> {
  const [result] = await eslint.lintText(code, { filePath })
  return result.messages.map((message) => message.ruleId ?? message.message)
}
const imports = (path: string) => `import x from '${path}'\nexport default x\n`

describe('the lint sees', () => {
  it.each([
    ['src/drawings/planted.ts', '@/stores/book'],
    ['src/drawings/planted.ts', '../stores/book'],
    ['src/api/planted.ts', '@/stores/book'],
    ['src/composables/planted.ts', '@/views/LogView.vue'],
    ['src/stores/planted.ts', '@/shell/WorkFrame.vue'],
    ['src/benches/planted.ts', '@/views/LogView.vue'],
  ])('%s that asks for %s above it', async (file, path) => {
    expect(await found(file, imports(path))).toEqual(['no-restricted-imports'])
  })
  it('and lets a view ask for what stands below', async () => {
    expect(await found('src/views/planted.ts', imports('@/stores/book'))).toEqual([])
  })
  it('a line of more than 110 letters, in a script and in a template', async () => {
    const long = 'a'.repeat(120)
    expect(await found('src/views/planted.ts', `export default '${long}'\n`)).toContain('vue/max-len')
    expect(await found('src/views/Planted.vue', `<template>\n  <p>${long}</p>\n</template>\n`)).toContain(
      'vue/max-len',
    )
  })
  it.each([
    ["export const f = (v: string) => v === 'too_close'\n", 'a verdict'],
    ["export const f = (v: string) => ['outside', 'too_close'].includes(v)\n", 'verdicts in a list'],
    ["export const f = (s: { kind: string }) => s.kind !== 'tighten'\n", 'a kind of step'],
  ])('a code of the core compared: %s', async (code) => {
    expect(await found('src/views/planted.ts', code)).toContain('no-restricted-syntax')
    expect(await found('src/drawings/planted.ts', code)).toEqual([])
  })
  it('the same in a template', async () => {
    const code = `<template>\n  <p v-if="rung === 'drive'">x</p>\n</template>\n`
    expect(await found('src/views/Planted.vue', code)).toContain('vue/no-restricted-syntax')
  })
  it('two things compared without their types', async () => {
    expect(await found('src/views/planted.ts', 'export const f = (a: string) => a == "b"\n')).toContain(
      'eqeqeq',
    )
  })
}, 30_000)
