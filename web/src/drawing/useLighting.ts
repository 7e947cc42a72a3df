import { computed, ref, type Ref } from 'vue'

const selections = new Map<string, Ref<string | undefined>>()

/**
 * Which part of a project is lit everywhere: the one under the pointer or focus, else the one
 * selected. A selection holds from the desk to the list and back.
 */
export function useLighting(project: string) {
  const selected = selections.get(project) ?? ref<string>()
  selections.set(project, selected)
  const hovered = ref<string>()
  const lit = computed(() => hovered.value ?? selected.value)
  return {
    lit,
    selected,
    hover: (part?: string) => (hovered.value = part),
    select: (part?: string) => (selected.value = part),
  }
}

export type Lighting = ReturnType<typeof useLighting>
