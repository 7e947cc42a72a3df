<script setup lang="ts">
import { computed } from 'vue'
import type { CardCut } from '../api'
import { LengthText } from '../shared'
import CrosscutDrawing from './CrosscutDrawing.vue'
import EndGrain from './EndGrain.vue'
import ShapeDrawing from './ShapeDrawing.vue'
import type { CardNow, RowNow } from './useCutting'

/** One board at a set-up: how it lies, each sort of its cuts drawn once, and all of them told. */
const props = defineProps<{ card: CardNow; row: RowNow }>()

const cuts = computed(() => (props.row.left.length ? props.row.left : props.row.cuts))
const isCrosscut = computed(() => props.card.is_crosscut)
/** What two cuts have alike whose drawings are one: how the piece lies, its end, and a line's place. */
function sortOf(one: CardCut): string {
  const line = one.to_line ? `line ${String(one.mark.ticks)} ${one.line}` : 'stop'
  return [one.lies, line, ...one.near_end, one.keeps_near].join(' ')
}
/** The cuts that are drawn, one of each sort. */
const drawn = computed(() => {
  if (!isCrosscut.value && !cuts.value[0]?.shape) return cuts.value.slice(0, 1)
  const sorts = cuts.value.map(sortOf)
  return cuts.value.filter((_, n) => sorts.indexOf(sorts[n]!) === n)
})
/** What is told of how a piece lies: all of it where that is unusual, or the blade leans. */
function lies(one: CardCut): string {
  const isPlain = one.is_usual && !props.card.tilt && !one.touches
  const told = isCrosscut.value && isPlain ? '' : one.lies
  if (!props.card.at || one.shape) return told
  const how = one.to_line ? 'To its line, away from the stop' : told ? '' : 'At the stop'
  return drawn.value.length > 1 || one.to_line ? [how, told].filter(Boolean).join(': ') : told
}
</script>

<template>
  <template v-for="one in drawn" :key="one.key">
    <p v-if="lies(one)" class="lies">{{ lies(one) }}</p>
    <ShapeDrawing v-if="one.shape" :card="card" :cut="one" :kind="row.kind" />
    <CrosscutDrawing v-else-if="isCrosscut" :card="card" :cut="one" :kind="row.kind" />
    <EndGrain v-else :card="card" :cuts="cuts" :kind="row.kind" />
  </template>
  <ol class="cuts" :aria-label="`Cuts of board ${row.board}`">
    <li v-for="(one, n) in cuts" :key="one.key">
      {{ one.piece }}: <strong>{{ one.makes }}</strong>
      <template v-if="one.measured && one.measured_how"
        >, {{ one.labels[0] ?? 'the piece' }} is <LengthText :length="one.measured" />
        {{ one.measured_how }}</template
      ><template v-if="one.to_line"
        >, {{ one.line }}, saw {{ one.shape ? 'on the waste side of' : one.waste }} it</template
      ><template v-else-if="cuts.some((other) => other.to_line)">, at the stop</template>
      <span v-if="n && one.lies !== cuts[n - 1]?.lies" class="turn">{{ one.lies }}</span>
    </li>
  </ol>
</template>

<style scoped>
p {
  margin: 0;
}

.lies,
.cuts {
  font-size: var(--far);
  line-height: 1.3;
}

.lies {
  font-weight: 620;
}

.cuts {
  margin: 8px 0 0;
  padding-left: 24px;
}

.turn {
  display: block;
  font-weight: 620;
}
</style>
