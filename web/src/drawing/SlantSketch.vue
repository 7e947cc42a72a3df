<script setup lang="ts">
import { computed } from 'vue'
import type { Part } from '../api'

/** A small picture of how the ends or the edges of a part lean, not to scale in its length. */
const props = defineProps<{ slant: Part['slant']; of: 'ends' | 'edges' }>()
const WIDE = 66
const HIGH = 18
const MOST = 24

const points = computed(() => {
  const [left = 0, right = 0] = props.slant?.[props.of] ?? []
  const [l, r] = [left, right].map((degrees) => {
    const reach = Math.tan((Math.abs(degrees) * Math.PI) / 180) * HIGH
    return Math.min(MOST, reach)
  }) as [number, number]
  return [
    [left < 0 ? l : 0, 0],
    [WIDE - (right < 0 ? r : 0), 0],
    [WIDE - (right > 0 ? r : 0), HIGH],
    [left > 0 ? l : 0, HIGH],
  ]
    .map(([x = 0, y = 0]) => `${x + 1},${y + 1}`)
    .join(' ')
})
const seen = computed(() => {
  if (props.of === 'edges') return 'seen on its end'
  const through = props.slant?.bevels.some(Boolean)
  return through ? 'seen from an edge' : 'seen from its face'
})
</script>

<template>
  <svg
    class="slant"
    :viewBox="`0 0 ${WIDE + 2} ${HIGH + 2}`"
    :width="WIDE + 2"
    :height="HIGH + 2"
    role="img"
    :aria-label="`${of}, ${seen}`"
  >
    <title>{{ seen }}</title>
    <polygon :points="points" />
  </svg>
</template>

<style scoped>
.slant {
  display: block;
  margin-top: 3px;
}

polygon {
  fill: rgb(var(--v-theme-plain));
  stroke: rgb(var(--v-theme-on-surface));
}
</style>
