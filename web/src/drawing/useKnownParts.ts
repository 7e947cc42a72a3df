import { shallowReactive, watch } from 'vue'
import type { Part } from '../api'

/** Parts by id, in a map in which only what has changed changes: a board is drawn anew when one of
 * its own parts is another. */
export function useKnownParts(parts: () => Part[]): Map<string, Part> {
  const known = shallowReactive(new Map<string, Part>())
  watch(
    parts,
    (now) => {
      const ids = new Set(now.map((part) => part.id))
      for (const id of known.keys()) if (!ids.has(id)) known.delete(id)
      for (const part of now) if (known.get(part.id) !== part) known.set(part.id, part)
    },
    { immediate: true, flush: 'sync' },
  )
  return known
}
