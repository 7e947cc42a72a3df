import { useLocalStorage } from '@vueuse/core'
import { nextTick } from 'vue'

/**
 * A digital tape: something that says one reading after the other, each a length with its unit, such
 * as `5 7/16in` or `138.5mm`. A device on a cable or over the air is one of these, and so is the
 * simulated panel.
 */
export interface Tape {
  start(reading: (text: string) => void): void
  stop(): void
}

/** Marks an input that takes readings. */
export const TAKES_LENGTH = '[data-takes="length"]'

export const panelOpen = useLocalStorage('grain-tally:tape', false)

let field: HTMLInputElement | undefined

function noteFocus(event: FocusEvent) {
  const target = event.target as HTMLElement
  if (target.matches(TAKES_LENGTH)) field = target as HTMLInputElement
}

/** What the next reading goes into, in words; nothing when there is no such field. */
export function fieldInHand(): string {
  const at = document.activeElement
  return at instanceof HTMLInputElement && at.matches(TAKES_LENGTH)
    ? (at.getAttribute('aria-label') ?? at.labels?.[0]?.textContent ?? 'a length')
    : ''
}

/** Puts a reading into the focused length field, keeps it, and goes on to the next such field. */
async function take(text: string) {
  const input = field
  if (!input?.isConnected || document.activeElement !== input) return
  input.value = text
  input.dispatchEvent(new Event('input', { bubbles: true }))
  await nextTick()
  const all = [...document.querySelectorAll<HTMLInputElement>(TAKES_LENGTH)]
  const next = all[all.indexOf(input) + 1]
  if (next) next.focus()
  else input.blur()
}

/** Connects a tape to whatever length field has the focus; returns how to let go of it. */
export function connect(tape: Tape): () => void {
  document.addEventListener('focusin', noteFocus)
  const at = document.activeElement
  if (at instanceof HTMLInputElement && at.matches(TAKES_LENGTH)) field = at
  tape.start((text) => void take(text))
  return () => {
    tape.stop()
    document.removeEventListener('focusin', noteFocus)
  }
}
