<script setup lang="ts">
import { computed, useId } from 'vue'
import type { CardCut } from '../api'
import type { CardNow } from './useCutting'

/** A board's end as it lies on the saw: the fence on the side it stands, the blade as it leans, each
 * cut with its number. To scale. */
const props = defineProps<{ card: CardNow; cuts: CardCut[]; kind: string }>()

const ROOM = { wide: 560, high: 150 }
const MARGIN = 44

const cut = computed(() => props.cuts[0]!)
const wide = computed(() => Math.max(...cut.value.corners.map((one) => one[0] ?? 0), cut.value.far))
const high = computed(() => Math.max(...cut.value.corners.map((one) => one[1] ?? 0)))
const scale = computed(() => Math.min(ROOM.wide / wide.value, ROOM.high / high.value))
const table = computed(() => high.value * scale.value + MARGIN)
const width = computed(() => wide.value * scale.value + 2 * MARGIN)
const isLeft = computed(() => props.card.fence_side === 'left')

function across(out: number): number {
  const from = MARGIN + out * scale.value
  return isLeft.value ? from : width.value - from
}

function up(height: number): number {
  return table.value - height * scale.value
}

const section = computed(() =>
  cut.value.corners.map((one) => `${across(one[0] ?? 0)},${up(one[1] ?? 0)}`).join(' '),
)
/** The blade between its two sides, as high as the board and a little more. */
function blade(one: CardCut): string {
  const over = high.value + 18 / scale.value
  const run = over * Math.tan((props.card.tilt * Math.PI) / 180)
  return [
    `${across(one.near)},${up(0)}`,
    `${across(one.far)},${up(0)}`,
    `${across(one.far + run)},${up(over)}`,
    `${across(one.near + run)},${up(over)}`,
  ].join(' ')
}

function top(one: CardCut): number {
  const over = high.value + 30 / scale.value
  return across((one.near + one.far) / 2 + over * Math.tan((props.card.tilt * Math.PI) / 180))
}

/** What is waste, from the fence to the blade or beyond it. */
function beside(isNear: boolean): string {
  const one = cut.value
  const over = high.value * Math.tan((props.card.tilt * Math.PI) / 180)
  const end = isNear ? -1000 / scale.value : wide.value + 1000 / scale.value
  const at = isNear ? one.near : one.far
  return [
    `${across(end)},${up(0)}`,
    `${across(at)},${up(0)}`,
    `${across(at + over)},${up(high.value)}`,
    `${across(end)},${up(high.value)}`,
  ].join(' ')
}
const clip = useId()

const fenceAt = computed(() => (isLeft.value ? MARGIN - 20 : width.value - MARGIN))
const said = computed(
  () =>
    `The board’s end on the saw: fence on the ${props.card.fence_side}, ${cut.value.up} up, ${cut.value.against} at the fence` +
    (props.card.tilt ? `, blade tilted ${props.card.tilt}° to the ${props.card.tilt_side}` : ''),
)
</script>

<template>
  <svg :viewBox="`0 0 ${width} ${table + 40}`" class="end" role="img" :aria-label="said">
    <rect x="0" :y="table" :width="width" height="6" class="table" />
    <rect
      :x="fenceAt"
      :y="table - Math.max(high * scale, 40) - 8"
      width="20"
      :height="Math.max(high * scale, 40) + 8"
      class="fence"
    />
    <polygon :points="section" :class="['wood', kind]" />
    <polygon :points="section" :fill="`url(#mark-${kind})`" />
    <clipPath :id="clip"><polygon :points="section" /></clipPath>
    <g :clip-path="`url(#${clip})`">
      <template v-for="near in [true, false]" :key="String(near)">
        <template v-if="!(near ? cut.keeps_near : cut.keeps_far)">
          <polygon :points="beside(near)" class="ground" />
          <polygon :points="beside(near)" fill="url(#saw-waste)" />
        </template>
      </template>
    </g>
    <g v-for="(one, n) in cuts.slice(0, 1)" :key="one.key">
      <polygon :points="blade(one)" class="blade" />
      <text :x="top(one)" :y="up(high) - 24" text-anchor="middle" class="number">{{ n + 1 }}</text>
    </g>
    <text :x="width / 2" :y="up(high) - 8" text-anchor="middle" class="face">{{ cut.up }} up</text>
    <text
      :x="isLeft ? 2 : width - 2"
      :y="table + 26"
      :text-anchor="isLeft ? 'start' : 'end'"
      class="fine"
    >
      fence, {{ cut.against }}
    </text>
    <text
      :x="isLeft ? width - 2 : 2"
      :y="table + 26"
      :text-anchor="isLeft ? 'end' : 'start'"
      class="fine"
    >
      table
    </text>
  </svg>
</template>

<style scoped src="./sawn.css"></style>

<style scoped>
.end {
  display: block;
  width: 100%;
  max-height: 220px;
}

.table,
.fence {
  fill: rgb(var(--v-theme-quiet));
}

.number {
  font-size: var(--far-fine);
  font-weight: 700;
  fill: rgb(var(--v-theme-error));
}

.face,
.fine {
  font-size: var(--far-fine);
}

.fine {
  fill: rgb(var(--v-theme-quiet));
}
</style>
