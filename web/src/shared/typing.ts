/** Whether a key press belongs to a field that is being typed in. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement
  return Boolean(target.closest('input, textarea, select, [contenteditable]'))
}

/** Whether a key press belongs to a dialog or a menu over the page, or one of them is open. */
export function isElsewhere(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement
  return Boolean(target.closest('.v-overlay') || document.querySelector('.v-overlay--active'))
}
