import { ref } from 'vue'

/** Whether the list of keys is open. */
export const keysOpen = ref(false)

export const SHORTCUTS = [
  { keys: '1 – 7', does: 'to the places on the tape, from the left' },
  { keys: 'W', does: 'to the workshop’s own places' },
  { keys: 'Ctrl Z', does: 'undo' },
  { keys: 'Ctrl Shift Z', does: 'redo' },
  { keys: 'Enter', does: 'add the line, or save the field' },
  { keys: 'Escape', does: 'give up what was typed in a field, leave it' },
  { keys: 'Tab', does: 'next field; in a formula the name that is offered' },
  { keys: 'F2', does: 'to the end of a formula' },
  { keys: '?', does: 'this list' },
] as const

export const AT_THE_DESK = [
  { keys: 'N', does: 'new part: to the entry line' },
  { keys: 'J  K', does: 'next part, part before' },
  { keys: 'E', does: 'edit the length of the selected part' },
  { keys: 'X', does: 'remove the selected part' },
  { keys: 'P', does: 'the parts' },
  { keys: 'M', does: 'the measures' },
  { keys: 'H', does: 'joints and hardware' },
  { keys: 'B', does: 'the boards' },
  { keys: 'D', does: 'the drawing' },
  { keys: 'S', does: 'settings: yard, copies, kerf, trims, unit' },
  { keys: 'I', does: 'import a part list' },
  { keys: 'L', does: 'to the shopping list' },
] as const
