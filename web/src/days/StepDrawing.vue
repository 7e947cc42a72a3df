<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import type { Project } from '../api'
import { ShapeView, useDrawing } from '../shapes'

/** What is put together, to scale, from two sides. */
const props = defineProps<{ project: Project; shape: string; called: string }>()
const room = useTemplateRef<HTMLElement>('room')
const { width } = useElementSize(room)
const rooms = computed(() => ({ wide: Math.floor(width.value / 20) * 20, high: 220 }))
const drawing = useDrawing(
  computed(() => props.project),
  computed(() => props.shape),
  rooms,
)
const views = computed(() => (drawing.value?.views ?? []).slice(0, 2))
</script>

<template>
  <div ref="room" class="room">
    <figure v-for="view in views" :key="view.name">
      <ShapeView :view="view" :called="called" />
      <figcaption>{{ called }}, {{ view.name }}</figcaption>
    </figure>
  </div>
</template>

<style scoped>
.room {
  min-height: 20px;
  overflow-x: auto;
}

figure {
  margin: 0 0 8px;
}

figcaption {
  font-size: var(--text-fine);
  color: rgb(var(--v-theme-quiet));
}
</style>
