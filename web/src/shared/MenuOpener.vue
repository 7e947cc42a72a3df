<script setup lang="ts">
import { type Component, type ComponentPublicInstance, ref, shallowRef, watch } from 'vue'

/** What opens a menu. The menu comes at the first touch of it, or when it is opened from outside. */
defineProps<{ menu: Component; of: Record<string, unknown> }>()
const open = defineModel<boolean>({ default: false })
const activator = shallowRef<HTMLElement>()
const isWanted = ref(false)
watch(open, (now) => (isWanted.value ||= now))

const bound = {
  'aria-haspopup': 'menu' as const,
  ref: (it: Element | ComponentPublicInstance | null) =>
    (activator.value = (it && '$el' in it ? (it.$el as HTMLElement) : it) as HTMLElement),
  onPointerenter: () => (isWanted.value = true),
  onFocus: () => (isWanted.value = true),
  onClick: () => (open.value = !open.value),
}
</script>

<template>
  <slot :opens="{ ...bound, 'aria-expanded': open }" />
  <component
    :is="menu"
    v-if="isWanted && activator"
    v-model="open"
    :activator="activator"
    v-bind="of"
  />
</template>
