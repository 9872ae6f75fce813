/** A dialog that opens has the focus itself: the field that asks for it gets it, so that typing goes on. */
export function focusFields() {
  document.addEventListener('focusin', ({ target }) => {
    if (!(target instanceof HTMLElement) || !target.classList.contains('el-dialog')) return
    target.querySelector<HTMLElement>('[autofocus]')?.focus()
  })
}
