<script setup lang="ts">
import { computed } from 'vue'
import type { Layout, Length, Part } from '../api'
import LengthSpans from './LengthSpans.vue'

const props = defineProps<{
  layout: Layout
  kind: string
  scale: number
  height: number
  parts: Map<string, Part>
  lit: string | undefined
}>()
const emit = defineEmits<{ hover: [part?: string]; select: [part: string] }>()

const PER_LETTER = 7.2
const BESIDE = 9 // what lies beside a mark
const KEEP_WORD = 32
const LEAST_TEXT = 12

const width = computed(() => props.layout.length.ticks * props.scale)
const whole = computed(() => props.layout.section?.width.ticks ?? 1)

/** What lies on top, and how many equal pieces lie under it in a board that is ripped through. */
const seen = computed(() => {
  const tops = new Map<string, { placed: Layout['parts'][number]; deep: number }>()
  for (const placed of props.layout.parts) {
    const key = `${placed.start} ${placed.y?.low ?? 0} ${placed.y?.high ?? 0}`
    const under = tops.get(key)
    if (under) under.deep += 1
    else tops.set(key, { placed, deep: 1 })
  }
  return [...tops.values()]
})
const pieces = computed(() =>
  seen.value.map(({ placed, deep }) => {
    const across = placed.y ?? { low: 0, high: whole.value }
    const top = (across.low / whole.value) * props.height
    const high = ((across.high - across.low) / whole.value) * props.height
    const part = props.parts.get(placed.part)
    const [topLeft = 0, topRight = 0, bottomRight = 0, bottomLeft = 0] = placed.corners
    const middle = (placed.start + placed.end) / 2
    const before = placed.bevels.filter((at) => at < middle)
    const beyond = placed.bevels.filter((at) => at >= middle)
    const left = Math.max(topLeft, bottomLeft, ...before) * props.scale
    const wide = Math.min(topRight, bottomRight, ...beyond) * props.scale - left
    const mark = deep > 1 ? `${part?.mark} ×${deep}` : (part?.mark ?? '')
    const ofMark = mark.length * PER_LETTER + BESIDE
    const ofLength = placed.length.text.length * PER_LETTER + BESIDE
    return {
      ...placed,
      x: left,
      wide,
      top: top + 2,
      high,
      shape: [
        [topLeft, top + 2],
        [topRight, top + 2],
        [bottomRight, top + 2 + high],
        [bottomLeft, top + 2 + high],
      ]
        .map(([along, y]) => `${along! * props.scale},${y}`)
        .join(' '),
      mark,
      called: part?.called ?? '',
      showMark: wide > ofMark && high >= LEAST_TEXT,
      showLength: wide > ofMark + ofLength && high >= LEAST_TEXT,
    }
  }),
)
const offcuts = computed(() =>
  props.layout.keep.map((rest) => {
    const across = rest.y ?? { low: 0, high: whole.value }
    return {
      ...rest,
      x: rest.start * props.scale,
      wide: Math.max(0, (rest.end - rest.start) * props.scale - 0.5),
      top: 2 + (across.low / whole.value) * props.height,
      high: ((across.high - across.low) / whole.value) * props.height,
    }
  }),
)
/** Saw lines as they run on the face, in the order of the cuts. */
const lines = computed(() =>
  props.layout.cuts.flatMap((cut) => {
    const [x1, y1, x2, y2] = cut.on_face ?? []
    if (x1 === undefined) return []
    const down = (across: number) => 2 + (across / whole.value) * props.height
    return [
      { x1: x1 * props.scale, y1: down(y1!), x2: x2! * props.scale, y2: down(y2!), at: cut.number },
    ]
  }),
)
const said = computed(() => {
  const held = props.layout.parts
    .map((p) => `${props.parts.get(p.part)?.called ?? 'part'} ${p.length.text}`)
    .join(', ')
  const kept = props.layout.keep.map((rest) => rest.length.text).join(', ')
  return `Board ${props.layout.first}, ${props.layout.named_length}: ${held}${kept ? `, kept ${kept}` : ''}`
})

/** Pixels that a leftover's length takes, roughly. */
function room(length: Length): number {
  return length.text.length * 6.2
}
</script>

<template>
  <svg class="board" :width="width + 2" :height="height + 4" role="img" :aria-label="said">
    <rect x="0" y="2" :width="width" :height="height" fill="url(#saw-waste)" class="whole" />
    <g
      v-for="(piece, index) in pieces"
      :key="index"
      class="piece"
      :class="{ lit: lit === piece.part }"
      @pointerenter="emit('hover', piece.part)"
      @pointerleave="emit('hover')"
      @click="emit('select', piece.part)"
    >
      <title>
        {{ piece.mark }} {{ piece.called }} {{ piece.length.text
        }}{{ piece.ends ? `, ends ${piece.ends}, long points ${piece.long_points.join(' ')}` : '' }}
      </title>
      <polygon :points="piece.shape" :style="{ fill: `rgb(var(--v-theme-${kind}))` }" />
      <polygon :points="piece.shape" :fill="`url(#mark-${kind})`" />
      <line
        v-for="at in piece.bevels"
        :key="at"
        :x1="at * scale"
        :x2="at * scale"
        :y1="piece.top"
        :y2="piece.top + piece.high"
        class="bevel"
      />
      <polygon :points="piece.shape" class="edge" />
      <text
        v-if="piece.showMark"
        :x="piece.x + 6"
        :y="piece.top + piece.high / 2 + 4.5"
        class="mark"
      >
        {{ piece.mark }}
      </text>
      <text
        v-if="piece.showLength"
        :x="piece.x + piece.wide - 6"
        :y="piece.top + piece.high / 2 + 4.5"
        text-anchor="end"
        class="figure"
      >
        <LengthSpans :length="piece.length" />
      </text>
    </g>
    <g v-for="flaw in layout.flaws" :key="flaw.low" class="flaw">
      <title>flaw</title>
      <rect :x="flaw.low * scale" y="2" :width="(flaw.high - flaw.low) * scale" :height="height" />
      <path
        :d="`M${flaw.low * scale} 2 L${flaw.high * scale} ${height + 2} M${flaw.low * scale} ${height + 2} L${flaw.high * scale} 2`"
      />
    </g>
    <g v-for="rest in offcuts" :key="`keep ${rest.start} ${rest.top}`">
      <title>keep {{ rest.length.text }}</title>
      <rect
        :x="rest.x"
        :y="rest.top + 0.5"
        :width="rest.wide"
        :height="rest.high - 1"
        class="keep"
      />
      <text
        v-if="room(rest.length) < rest.wide && rest.high >= LEAST_TEXT"
        :x="rest.x + rest.wide / 2"
        :y="rest.top + rest.high / 2 + 4"
        text-anchor="middle"
        class="keep-text"
      >
        <tspan v-if="room(rest.length) + KEEP_WORD < rest.wide">
          {{ 'keep\u00a0' }}
        </tspan>
        <LengthSpans :length="rest.length" />
      </text>
    </g>
    <line
      v-for="line in lines"
      :key="line.at"
      :x1="line.x1"
      :y1="line.y1"
      :x2="line.x2"
      :y2="line.y2"
      class="saw-line"
    />
  </svg>
</template>

<style scoped>
.board {
  display: block;
  overflow: visible;
}

.whole {
  stroke: rgb(var(--v-theme-quiet));
  stroke-width: 0.5;
}

.saw-line {
  stroke: rgb(var(--v-theme-error));
  stroke-width: 1;
  pointer-events: none;
}

.piece {
  cursor: pointer;
}

.edge {
  fill: none;
  stroke: rgb(var(--v-theme-on-wood));
  stroke-opacity: 0.55;
  stroke-width: 1;
}

.bevel {
  stroke: rgb(var(--v-theme-on-wood));
  stroke-width: 1;
  stroke-dasharray: 3 2;
}

.lit .edge {
  stroke: rgb(var(--v-theme-lit-on-wood));
  stroke-opacity: 1;
  stroke-width: 3;
}

text {
  font-size: var(--drawn);
  font-stretch: 86%;
  fill: rgb(var(--v-theme-on-wood));
  pointer-events: none;
}

.mark {
  font-weight: 740;
}

text.figure {
  font-weight: 600;
}

.flaw {
  fill: none;
  stroke: rgb(var(--v-theme-error));
  stroke-width: 1.5;
  stroke-dasharray: 2 2;
}

.keep {
  fill: rgb(var(--v-theme-surface));
  stroke: rgb(var(--v-theme-quiet));
  stroke-width: 1.5;
  stroke-dasharray: 5 3;
}

.keep-text {
  font-size: var(--drawn);
  font-weight: 600;
  fill: rgb(var(--v-theme-on-surface));
}
</style>
