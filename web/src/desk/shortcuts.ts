export const SHORTCUTS = [
  { keys: 'N', does: 'new part: to the entry line' },
  { keys: 'Enter', does: 'add the line, or save the field' },
  { keys: 'Escape', does: 'give up what was typed in a field, leave it' },
  { keys: 'Tab', does: 'next field' },
  { keys: 'J  K', does: 'next part, part before' },
  { keys: 'E', does: 'edit the length of the selected part' },
  { keys: 'X', does: 'remove the selected part' },
  { keys: 'Ctrl Z', does: 'undo' },
  { keys: 'Ctrl Shift Z', does: 'redo' },
  { keys: 'S', does: 'settings: yard, copies, kerf, trims, unit' },
  { keys: 'I', does: 'import a part list' },
  { keys: 'L', does: 'to the shopping list' },
  { keys: '?', does: 'this list' },
] as const

/** Whether a key press belongs to a field that is being typed in. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement
  return Boolean(target.closest('input, textarea, select, [contenteditable]'))
}
