// @vitest-environment jsdom
import { afterEach, expect, it } from 'vitest'
import { focusFields } from './dialogs'

focusFields()
afterEach(() => document.body.replaceChildren())

function dialog(inner: string) {
  document.body.innerHTML = `<div class="el-dialog" tabindex="-1">${inner}</div>`
  const made = document.querySelector<HTMLElement>('.el-dialog')!
  made.focus()
  return document.activeElement
}

it('gives the focus of a dialog to the field that asks for it', () => {
  expect(dialog('<button>x</button><input name="a" /><input name="b" autofocus />')).toHaveProperty(
    'name',
    'b',
  )
})

it('leaves it with the dialog where no field asks', () => {
  expect(dialog('<button>x</button>')).toHaveProperty('className', 'el-dialog')
})
