<script setup lang="ts">
import { computed } from 'vue'
import type { CardCut } from '../api'
import { LengthText } from '../shared'
import { type Corner, WIDE, shapeOf } from './crosscutShape'
import type { CardNow } from './useCutting'

/** A crosscut as the builder stands before the saw, from above and, where the blade or an end leans,
 * from the front: the fence, what touches the stop, the kerf, the side of the line on which the saw
 * runs. To one scale; the middle of a long board is broken away. */
const props = defineProps<{ card: CardNow; cut: CardCut; kind: string }>()

const TOP = 58
const BREAK = 7

const shape = computed(() => shapeOf(props.cut))
const hasStop = computed(() => !props.cut.to_line && props.card.at !== null)
const high = computed(() => shape.value.wide * shape.value.scale)
const bottom = computed(() => TOP + high.value)
const isAlongFront = computed(
  () => !hasStop.value && props.cut.line_along !== props.cut.against && !!props.cut.line_along,
)
/** The view from the front is drawn where it shows more than a rectangle. */
const leans = computed(() => {
  const { near_end, blade } = props.cut
  return near_end[0] !== near_end[3] || blade[0] !== blade[3]
})
const front = computed(() => bottom.value + 62)
const tall = computed(() =>
  leans.value ? front.value + shape.value.thick * shape.value.scale + 26 : bottom.value + 44,
)

function points(corners: Corner[], top: number): string {
  const { x, scale } = shape.value
  return corners.map(([out, deep]) => `${x(out)},${top + deep * scale}`).join(' ')
}

const views = computed(() => [
  { name: 'above', top: TOP, high: high.value },
  ...(leans.value
    ? [{ name: 'front', top: front.value, high: shape.value.thick * shape.value.scale }]
    : []),
])

function sides(name: string) {
  const way = name === 'above' ? 'above' : 'front'
  return [
    { corners: shape.value.near[way], wanted: props.cut.keeps_near },
    { corners: shape.value.far[way], wanted: props.cut.keeps_far },
  ]
}

/** The zigzag where the middle of a board is left out. */
function torn(top: number, tallness: number): string {
  const [from, to] = shape.value.gap ?? [0, 0]
  const heights = [0, 0.25, 0.5, 0.75, 1].map((share) => top - 1 + share * (tallness + 2))
  const left = heights.map((y, n) => `${from + (n % 2 ? BREAK : 0)},${y}`)
  const right = heights.map((y, n) => `${to - 2 + (n % 2 ? BREAK : 0)},${y}`).reverse()
  return [...left, ...right].join(' ')
}

/** The blade, longer than the board is wide. */
const blade = computed(() => {
  const { blade: near, kerf } = props.cut
  const { x, wide, scale } = shape.value
  const run = (near[1]! - near[0]!) / wide
  const out = (deep: number) => near[0]! + run * deep
  const [over, under] = [-22 / scale, wide + 20 / scale]
  const y = (deep: number) => TOP + deep * scale
  return [
    `${x(out(over))},${y(over)}`,
    `${x(out(over)) + kerf * scale},${y(over)}`,
    `${x(out(under)) + kerf * scale},${y(under)}`,
    `${x(out(under))},${y(under)}`,
  ].join(' ')
})

/** From where to where the figure runs, at the fence or along the other edge. */
const measure = computed(() => {
  const { near_end, blade: near, kerf, waste } = props.cut
  const { x } = shape.value
  const n = isAlongFront.value ? 1 : 0
  const y = isAlongFront.value ? bottom.value + 14 : 24
  const to = hasStop.value ? near[3]! : near[n]! + (waste === 'beyond' ? 0 : kerf)
  const from = x(hasStop.value ? 0 : near_end[n]!)
  return { from, to: x(to), y, edge: isAlongFront.value ? bottom.value : TOP }
})
const isTight = computed(() => measure.value.to - measure.value.from < 110)
/** The side of the line on which the saw runs, told beside the blade where there is room. */
const beside = computed(() => {
  const room = 140
  if (props.cut.waste !== 'beyond')
    return { x: Math.max(room, shape.value.x(Math.min(...props.cut.blade)) - 10), anchor: 'end' }
  return farAt.value < WIDE - room
    ? { x: farAt.value, anchor: 'start' }
    : { x: WIDE - 2, anchor: 'end' }
})
const label = computed(() => props.cut.labels.join(' '))
const nearAt = computed(() => shape.value.x(Math.max(...props.cut.near_end)) + 10)
const farAt = computed(() => shape.value.x(Math.max(...props.cut.blade) + props.cut.kerf) + 8)
const farSaid = computed(() =>
  !props.cut.keeps_far ? 'waste' : props.cut.keeps_near ? 'the rest' : 'keep',
)
const said = computed(
  () =>
    `${hasStop.value ? 'Stop to the left' : 'No stop'}, the piece ${props.cut.waste === 'beyond' ? 'left' : 'right'} of the blade is kept` +
    (props.cut.touches ? `, ${props.cut.touches} against the stop` : '') +
    (leans.value ? '; seen from above and from the front' : ''),
)
</script>

<template>
  <svg :viewBox="`0 0 ${WIDE} ${tall}`" class="crosscut" role="img" :aria-label="said">
    <text x="2" y="44" class="fine">fence</text>
    <rect x="0" :y="TOP - 10" :width="WIDE" height="10" class="fence" />
    <rect v-if="hasStop" :x="shape.x(0) - 26" :y="TOP" width="26" height="26" class="stop" />
    <text v-if="hasStop" :x="shape.x(0) - 58" :y="TOP + 44" class="strong">stop</text>
    <template v-for="view in views" :key="view.name">
      <text v-if="view.name === 'front'" x="2" :y="view.top - 10" class="fine">
        from the front, face up
      </text>
      <rect
        v-if="view.name === 'front'"
        x="0"
        :y="view.top + view.high"
        :width="WIDE"
        height="6"
        class="fence"
      />
      <rect
        v-if="view.name === 'front' && hasStop"
        :x="shape.x(0) - 18"
        :y="view.top - 6"
        width="18"
        :height="view.high + 6"
        class="stop"
      />
      <template v-for="(side, n) in sides(view.name)" :key="n">
        <polygon
          :points="points(side.corners, view.top)"
          :class="side.wanted ? ['wood', kind] : 'ground'"
        />
        <polygon
          :points="points(side.corners, view.top)"
          :fill="side.wanted ? `url(#mark-${kind})` : 'url(#saw-waste)'"
          class="outline"
        />
      </template>
      <polygon v-if="shape.gap" :points="torn(view.top, view.high)" class="ground" />
    </template>
    <polygon :points="blade" class="blade" />
    <polygon v-if="leans" :points="points(shape.blade.front, front)" class="blade" />
    <line
      v-if="leans"
      :x1="shape.x(cut.blade[3]!)"
      :y1="TOP"
      :x2="shape.x(cut.blade[2]!)"
      :y2="bottom"
      class="below"
    />
    <text :x="nearAt" :y="TOP + high / 2 + 8" class="mark">{{ cut.keeps_near ? label : '' }}</text>
    <text
      v-if="!cut.keeps_near && measure.to - measure.from > 80"
      :x="nearAt"
      :y="TOP + high / 2 + 8"
      class="waste"
    >
      waste
    </text>
    <text :x="farAt" :y="TOP + high / 2 + 8" :class="cut.keeps_far ? 'word' : 'waste'">
      {{ farSaid }}
      <tspan v-if="!cut.keeps_near && label" class="mark" dx="10">{{ label }}</tspan>
    </text>
    <path
      v-if="measure.to > measure.from"
      class="measure"
      :d="`M${measure.from} ${measure.y - 8}V${measure.edge}M${measure.to} ${measure.y - 8}V${measure.edge}M${measure.from} ${measure.y}H${measure.to}`"
    />
    <foreignObject
      v-if="measure.to > measure.from"
      :x="isTight ? measure.to + 6 : measure.from"
      :y="measure.y - 17"
      :width="isTight ? 160 : measure.to - measure.from"
      height="34"
    >
      <div class="length" :class="{ tight: isTight }">
        <span><LengthText :length="hasStop && card.at ? card.at : cut.mark" /></span>
      </div>
    </foreignObject>
    <text :x="beside.x" :y="bottom + 32" :text-anchor="beside.anchor" class="side">
      saw on this side
    </text>
    <text v-if="cut.touches && hasStop" x="2" :y="bottom + 32" class="strong">
      {{ cut.touches }} touches
    </text>
  </svg>
</template>

<style scoped src="./sawn.css"></style>

<style scoped>
.crosscut {
  display: block;
  width: 100%;
  max-height: 300px;
}

.fence {
  fill: rgb(var(--v-theme-quiet));
}

.stop {
  fill: rgb(var(--v-theme-on-surface));
}

.outline {
  stroke: rgb(var(--v-theme-on-surface));
  stroke-width: 1;
}

.below {
  stroke: rgb(var(--v-theme-on-wood));
  stroke-width: 1.2;
  stroke-dasharray: 5 4;
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
  paint-order: stroke;
  stroke: rgb(var(--v-theme-surface));
  stroke-width: 6px;
}

.side {
  font-size: var(--far-fine);
}

.measure {
  fill: none;
  stroke: rgb(var(--v-theme-on-surface));
  stroke-width: 1.3;
}

.length {
  text-align: center;
  font-size: var(--far);
  font-weight: 650;
}

.length.tight {
  text-align: left;
}

.length span {
  padding: 0 6px;
  background: rgb(var(--v-theme-surface));
}
</style>
