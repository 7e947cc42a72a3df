<script setup lang="ts">
import type { DrawnView } from '../api'

/** One view of a shape to scale: its pieces, their letters, and dimension lines. */
defineProps<{ view: DrawnView; lit?: string; called: string }>()
defineEmits<{ hover: [letter: string]; choose: [letter: string] }>()

/** What is written, its fraction by itself. */
function apart(text: string): string[] {
  const [, before = text, upper = '', lower = '', after = ''] =
    /^(.*?) ?(\d+)\/(\d+)(.*)$/.exec(text) ?? []
  return [before, upper && `${upper}⁄${lower}`, after]
}
</script>

<template>
  <svg
    :width="view.width"
    :height="view.height"
    :viewBox="`0 0 ${view.width} ${view.height}`"
    role="img"
    :aria-label="`${called}, ${view.name}: ${view.pieces.length} pieces, ${view.ratio}`"
  >
    <polygon
      v-for="(piece, index) in view.pieces"
      :key="index"
      :points="piece.points"
      :data-letter="piece.letter"
      :class="{ lit: piece.letter === lit }"
      :style="{ fill: `rgb(var(--v-theme-${piece.kind || 'plain'}))` }"
      @pointerenter="$emit('hover', piece.letter)"
      @pointerleave="$emit('hover', '')"
      @click="$emit('choose', piece.letter)"
    >
      <title>{{ piece.letter }}{{ piece.number }}</title>
    </polygon>
    <line
      v-for="([x1, y1, x2, y2], index) in view.lines"
      :key="`line ${index}`"
      :x1="x1"
      :y1="y1"
      :x2="x2"
      :y2="y2"
    />
    <text
      v-for="(label, index) in view.labels"
      :key="`label ${index}`"
      :x="label.x"
      :y="label.y"
      :class="label.letter ? 'letter' : 'size'"
    >
      <template v-if="label.letter">{{ label.text }}</template>
      <tspan
        v-for="(said, part) in label.letter ? [] : apart(label.text)"
        :key="part"
        :class="{ fraction: part === 1 }"
      >
        {{ said }}
      </tspan>
    </text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  max-width: 100%;
  height: auto;
}

polygon {
  stroke: rgb(var(--v-theme-on-wood), 0.6);
  stroke-width: 1;
  stroke-linejoin: round;
}

.lit {
  stroke: rgb(var(--v-theme-primary));
  stroke-width: 3;
}

line {
  stroke: rgb(var(--v-theme-on-background));
}

text {
  text-anchor: middle;
  font-size: var(--drawn);
  pointer-events: none;
}

.letter {
  font-weight: 650;
  fill: rgb(var(--v-theme-on-wood));
}

.size {
  font-weight: 550;
  fill: rgb(var(--v-theme-on-background));
}
</style>
