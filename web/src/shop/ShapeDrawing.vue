<script setup lang="ts">
import { computed } from 'vue'
import type { CardCut } from '../api'
import type { CardNow } from './useCutting'

/** What is sawn of a part that is cut already, from above, the fence at the top: its line and its
 * waste; of one end no more than that end. To scale. */
const props = defineProps<{ card: CardNow; cut: CardCut; kind: string }>()

const ROOM = { wide: 640, high: 150 }
const TOP = 40

const shape = computed(() => props.cut.shape!)
const long = computed(() => props.cut.size[0] ?? 1)
const across = computed(() => Math.max(...shape.value.line.map((one) => one[1] ?? 0), wide.value))
const wide = computed(() => props.cut.size[1] ?? 1)
/** From where to where of the piece is seen. */
const seen = computed<[number, number]>(() => {
  if (shape.value.is_outline || shape.value.line.length > 2) return [0, long.value]
  const all = shape.value.line.map((one) => one[0] ?? 0)
  const beside = 2.5 * across.value
  return [Math.max(0, Math.min(...all) - beside), Math.min(long.value, Math.max(...all) + beside)]
})
const scale = computed(() =>
  Math.min(ROOM.wide / (seen.value[1] - seen.value[0]), ROOM.high / across.value),
)
const isTurned = computed(() => props.cut.first === 'far end')

function at(point: number[]): string {
  const along = (point[0] ?? 0) - seen.value[0]
  const span = seen.value[1] - seen.value[0]
  const out = shape.value.is_over ? across.value - (point[1] ?? 0) : (point[1] ?? 0)
  const x = 10 + (isTurned.value ? span - along : along) * scale.value
  return `${x},${TOP + out * scale.value}`
}

const rectangle = computed(() => {
  const [from, to] = seen.value
  const corners = [
    [from, 0],
    [to, 0],
    [to, across.value],
    [from, across.value],
  ]
  return corners.map(at).join(' ')
})
const bottom = computed(() => TOP + across.value * scale.value)
/** From the front, at the fence, where the blade is tilted: the end leans by the tilt, along the fence
 * by that ÷ cos of the turn. */
const front = computed(() => {
  if (!props.card.tilt) return null
  const thick = (props.cut.size[2] ?? 1) * scale.value
  const top = bottom.value + 40
  const radians = Math.PI / 180
  const run = (thick * Math.tan(props.card.tilt * radians)) / Math.cos(props.card.angle * radians)
  const fence = shape.value.is_over ? across.value : 0
  const point = shape.value.line.find((one) => one[1] === fence) ?? shape.value.line[0]!
  const x = Number(at(point).split(',')[0])
  const below = x + (props.card.tilt_side === 'right' ? -run : run)
  const far = x < 330 ? Number(at([seen.value[isTurned.value ? 0 : 1], 0]).split(',')[0]) : 10
  return {
    top,
    thick,
    points: `${x},${top} ${far},${top} ${far},${top + thick} ${below},${top + thick}`,
    blade: `${x},${top} ${below},${top + thick}`,
  }
})
const tall = computed(() => (front.value ? front.value.top + front.value.thick : bottom.value) + 34)
const said = computed(
  () =>
    `${props.cut.labels.join(' ')} from above, ${props.cut.up} up: ${props.cut.makes}, ${props.cut.line}`,
)
</script>

<template>
  <svg :viewBox="`0 0 660 ${tall}`" class="shape" role="img" :aria-label="said">
    <text x="2" y="20" class="fine">fence, {{ cut.against }}</text>
    <rect x="0" :y="TOP - 10" width="660" height="10" class="fence" />
    <polygon :points="rectangle" :class="shape.is_outline ? 'ground' : ['wood', kind]" />
    <polygon
      :points="rectangle"
      :fill="shape.is_outline ? 'url(#saw-waste)' : `url(#mark-${kind})`"
      class="outline"
    />
    <polygon
      :points="shape.waste.map(at).join(' ')"
      :class="shape.is_outline ? ['wood', kind] : 'ground'"
    />
    <polygon
      v-if="!shape.is_outline"
      :points="shape.waste.map(at).join(' ')"
      fill="url(#saw-waste)"
    />
    <polyline :points="shape.line.map(at).join(' ')" class="line" />
    <text x="2" :y="bottom + 18" class="fine">{{ cut.up }} up</text>
    <template v-if="front">
      <text x="2" :y="front.top - 6" class="fine">from the front, at the fence</text>
      <polygon :points="front.points" :class="['wood', kind]" />
      <polygon :points="front.points" :fill="`url(#mark-${kind})`" class="outline" />
      <polyline :points="front.blade" class="line" />
      <rect x="0" :y="front.top + front.thick" width="660" height="6" class="fence" />
    </template>
  </svg>
</template>

<style scoped src="./sawn.css"></style>

<style scoped>
.shape {
  display: block;
  width: 100%;
  max-height: 260px;
}

.fence {
  fill: rgb(var(--v-theme-quiet));
}

.outline {
  stroke: rgb(var(--v-theme-on-surface));
}

.line {
  fill: none;
  stroke: rgb(var(--v-theme-saw));
  stroke-width: 4;
}

.fine {
  font-size: var(--far-fine);
  fill: rgb(var(--v-theme-quiet));
}
</style>
