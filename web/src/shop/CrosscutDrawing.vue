<script setup lang="ts">
import { computed } from 'vue'
import type { CardCut } from '../api'
import { LengthText } from '../shared'
import type { CardNow } from './useCutting'

/** A crosscut from above, as the builder stands before the saw: the fence, the stop, the piece that
 * is kept and the waste, and the side of the line on which the saw runs. Not to scale along. */
const props = defineProps<{ card: CardNow; cut: CardCut; kind: string }>()

const WIDE = 660
const BOARD = { top: 40, high: 66 }
const STOP = 52
const BLADE = 8

const isTrim = computed(() => props.cut.waste === 'before')
/** Where the blade crosses the fence, and how far its front end is beside that. */
const line = computed(() => (isTrim.value ? 150 : 454))
const slant = computed(() => {
  const run = Math.min(120, BOARD.high * Math.tan((props.card.angle * Math.PI) / 180))
  return props.card.swing === 'left' ? -run : run
})
const bottom = BOARD.top + BOARD.high

/** What is left and right of the blade. */
const left = computed(
  () =>
    `${STOP},${BOARD.top} ${line.value},${BOARD.top} ${line.value + slant.value},${bottom} ${STOP},${bottom}`,
)
const right = computed(() => {
  const from = line.value + BLADE
  return `${from},${BOARD.top} ${WIDE},${BOARD.top} ${WIDE},${bottom} ${from + slant.value},${bottom}`
})
/** What is on either side, and whether it is wood that is wanted. */
const sides = computed(() => [
  { points: left.value, wanted: props.cut.keeps_near },
  { points: right.value, wanted: props.cut.keeps_far },
])
const label = computed(() => props.cut.labels.join(' '))
const farAt = computed(() => line.value + BLADE + Math.max(slant.value, 0) + 30)
const wasteAt = computed(() => (props.cut.keeps_near ? farAt.value : STOP + 4))
const said = computed(
  () =>
    `${isTrim.value ? 'No stop' : 'Stop to the left'}, the piece ${isTrim.value ? 'right' : 'left'} of the blade is kept`,
)
</script>

<template>
  <svg :viewBox="`0 0 ${WIDE} 168`" class="crosscut" role="img" :aria-label="said">
    <text x="2" y="18" class="fine">fence</text>
    <rect x="0" y="28" :width="WIDE" height="10" class="fence" />
    <g v-if="!isTrim">
      <rect x="22" y="38" width="30" height="48" class="stop" />
      <text x="0" y="112" class="strong">stop</text>
    </g>
    <template v-for="side in sides" :key="side.points">
      <polygon :points="side.points" :class="side.wanted ? ['wood', kind] : 'ground'" />
      <polygon
        :points="side.points"
        :fill="side.wanted ? `url(#mark-${kind})` : 'url(#saw-waste)'"
      />
    </template>
    <polygon
      :points="`${line},20 ${line + BLADE},20 ${line + BLADE + slant},${bottom + 44} ${line + slant},${bottom + 44}`"
      class="blade"
    />
    <text :x="isTrim ? 180 : STOP + 16" :y="BOARD.top + 43" class="mark">{{ label }}</text>
    <text v-if="!isTrim" :x="290" :y="BOARD.top + 41" class="word">keep</text>
    <g
      v-if="!cut.keeps_near || !cut.keeps_far"
      :transform="`translate(${wasteAt}, ${BOARD.top + 17})`"
    >
      <rect width="84" height="32" class="plate" />
      <text x="42" y="22" text-anchor="middle" class="waste">waste</text>
    </g>
    <text v-if="cut.keeps_far" :x="farAt" :y="BOARD.top + 41" class="word">
      {{ isTrim ? 'keep' : 'the rest' }}
    </text>
    <g v-if="!isTrim" class="measure">
      <path
        :d="`M${STOP} ${bottom + 14}v18M${line} ${bottom + 14}v18M${STOP} ${bottom + 23}H${line}`"
      />
    </g>
    <foreignObject
      :x="isTrim ? 200 : STOP"
      :y="bottom + 26"
      :width="isTrim ? 300 : line - STOP"
      height="32"
    >
      <div class="length">
        <template v-if="isTrim">line at </template><LengthText :length="cut.mark" />
        <template v-if="isTrim"> from the end</template>
      </div>
    </foreignObject>
    <text v-if="!isTrim" :x="line + BLADE + Math.max(slant, 0) + 8" :y="bottom + 38" class="side">
      saw on this side
    </text>
    <text v-else :x="line - 10" :y="bottom + 38" text-anchor="end" class="side">
      saw on this side
    </text>
  </svg>
</template>

<style scoped src="./sawn.css"></style>

<style scoped>
.crosscut {
  display: block;
  width: 100%;
  max-height: 210px;
}

.fence {
  fill: rgb(var(--v-theme-quiet));
}

.stop {
  fill: rgb(var(--v-theme-on-surface));
}

.plate {
  fill: rgb(var(--v-theme-surface));
}

.fine {
  font-size: var(--far-fine);
  fill: rgb(var(--v-theme-quiet));
}

.strong {
  font-size: var(--far-fine);
  font-weight: 650;
}

.mark {
  font-size: var(--far-lead);
  font-weight: 700;
  fill: rgb(var(--v-theme-on-wood));
}

.word {
  font-size: var(--far);
  fill: rgb(var(--v-theme-on-wood));
}

.waste,
.side {
  font-weight: 650;
  fill: rgb(var(--v-theme-error));
}

.waste {
  font-size: var(--far);
}

.side {
  font-size: var(--far-fine);
}

.measure path {
  fill: none;
  stroke: rgb(var(--v-theme-on-surface));
  stroke-width: 1.5;
}

.length {
  text-align: center;
  font-size: var(--far);
  font-weight: 650;
}
</style>
