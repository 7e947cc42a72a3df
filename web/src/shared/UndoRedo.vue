<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { isElsewhere } from './typing'

/** Steps back and forth through what a thing was: in the header, and by Ctrl Z and Ctrl Shift Z. */
const props = defineProps<{
  thing: { undo: string | null; redo: string | null }
  step: (way: 'undo' | 'redo') => Promise<unknown>
}>()

useEventListener('keydown', (event: KeyboardEvent) => {
  if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return
  const target = event.target as HTMLElement
  const typed = target.dataset.dirty || (target instanceof HTMLTextAreaElement && target.value)
  if (typed || isElsewhere(event)) return
  event.preventDefault()
  void props.step(event.shiftKey ? 'redo' : 'undo')
})
</script>

<template>
  <Teleport defer to="#header-acts">
    <v-btn
      :disabled="!thing.undo"
      :title="thing.undo ? `take back: ${thing.undo}` : 'nothing to undo'"
      @click="step('undo')"
      >Undo</v-btn
    >
    <v-btn
      :disabled="!thing.redo"
      :title="thing.redo ? `again: ${thing.redo}` : 'nothing to redo'"
      @click="step('redo')"
      >Redo</v-btn
    >
  </Teleport>
</template>
