import { computed, inject, ref, type ComputedRef, type InjectionKey, type Ref } from 'vue'

/** The names that formulas know where this is provided: measures, and what is said of parts and runs. */
export const FORMULA_NAMES: InjectionKey<ComputedRef<string[]>> = Symbol('formula names')

const MOST_SHOWN = 6
const AT_THE_END = /(?:^|[^a-z0-9 ])\s*([a-z][a-z0-9 ]*)$/i

/** What is typed of a name before the caret; nothing where no formula is typed. */
export function begunName(text: string, caret: number, always = false): string {
  if (!always && !text.trimStart().startsWith('=')) return ''
  return AT_THE_END.exec(text.slice(0, caret))?.[1]?.trimStart() ?? ''
}

/** The names that begin so, then those that have a word that does. */
export function completions(names: readonly string[], begun: string): string[] {
  const sought = begun.trim().toLowerCase()
  if (!sought) return []
  const known = names.filter((name) => name.toLowerCase() !== sought)
  const first = known.filter((name) => name.toLowerCase().startsWith(sought))
  const later = known.filter(
    (name) => !first.includes(name) && name.toLowerCase().includes(` ${sought}`),
  )
  return [...first, ...later].slice(0, MOST_SHOWN)
}

/** Completes names while a formula is typed into a field. `always` where it is a formula without =. */
export function useCompletion(
  input: Ref<HTMLInputElement | HTMLTextAreaElement | null>,
  text: Ref<string>,
  take: (text: string) => void,
  always = false,
) {
  const names = inject(FORMULA_NAMES, undefined)
  const caret = ref(0)
  const shut = ref(true)
  const at = ref(0)
  const begun = computed(() => begunName(text.value, caret.value, always))
  const offered = computed(() =>
    shut.value || !names ? [] : completions(names.value, begun.value),
  )

  function typed() {
    caret.value = input.value?.selectionStart ?? text.value.length
    shut.value = false
    at.value = 0
  }

  function choose(name: string) {
    const start = caret.value - begun.value.length
    take(text.value.slice(0, start) + name + text.value.slice(caret.value))
    shut.value = true
    const after = start + name.length
    requestAnimationFrame(() => {
      input.value?.focus()
      input.value?.setSelectionRange(after, after)
    })
  }

  /** Whether a key was for the names that are offered. */
  function key(event: KeyboardEvent): boolean {
    if (event.key === 'F2') {
      event.preventDefault()
      input.value?.setSelectionRange(text.value.length, text.value.length)
      return true
    }
    const count = offered.value.length
    if (!count) return false
    const name = offered.value[at.value]
    if (event.key === 'ArrowDown') at.value = (at.value + 1) % count
    else if (event.key === 'ArrowUp') at.value = (at.value + count - 1) % count
    else if (event.key === 'Tab' && !event.shiftKey && name) choose(name)
    else if (event.key === 'Escape') shut.value = true
    else return false
    event.preventDefault()
    event.stopPropagation()
    return true
  }

  return { offered, at, typed, choose, key, close: () => (shut.value = true) }
}
