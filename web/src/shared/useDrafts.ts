import { useLocalStorage } from '@vueuse/core'

/** Texts that were typed and are not saved yet, by field; they survive a reload. */
export function useDrafts(name: string) {
  const drafts = useLocalStorage<Record<string, string>>(`grain-tally:drafts:${name}`, {})

  function keep(field: string, text: string) {
    drafts.value = { ...drafts.value, [field]: text }
  }

  function drop(field: string) {
    const others = { ...drafts.value }
    delete others[field]
    drafts.value = others
  }

  return { drafts, keep, drop }
}
