import { computed, ref } from 'vue'

/** Which part is lit everywhere: the one under the pointer or focus, else the one selected. */
export function useLighting() {
  const hovered = ref<string>()
  const selected = ref<string>()
  const lit = computed(() => hovered.value ?? selected.value)
  return {
    lit,
    selected,
    hover: (part?: string) => (hovered.value = part),
    select: (part?: string) => (selected.value = part),
  }
}

export type Lighting = ReturnType<typeof useLighting>
