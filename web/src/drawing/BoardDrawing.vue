<script setup lang="ts">
import { computed } from 'vue'
import type { Layout, Length, Part } from '../api/client'
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

const MARK_ROOM = 24
const PER_LETTER = 7.2
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
    const room = placed.length.text.length * PER_LETTER + MARK_ROOM
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
      mark: deep > 1 ? `${part?.mark} ×${deep}` : (part?.mark ?? ''),
      called: part?.called ?? '',
      showMark: wide > (deep > 1 ? 34 : 16) && high >= LEAST_TEXT,
      showLength: wide > room + (deep > 1 ? 18 : 0) && high >= LEAST_TEXT,
    }
  }),
)
const end = computed(() => Math.max(0, ...props.layout.parts.map((placed) => placed.end)))
const keep = computed(() => (props.layout.leftover?.keep ? props.layout.leftover : undefined))
const wasteFrom = computed(() => end.value * props.scale)
const said = computed(() => {
  const held = props.layout.parts
    .map((p) => `${props.parts.get(p.part)?.called ?? 'part'} ${p.length.text}`)
    .join(', ')
  const rest = props.layout.leftover
  return `Board ${props.layout.first}, ${props.layout.named_length}: ${held}${rest ? `, left ${rest.length.text}` : ''}`
})

/** Pixels that a leftover's length takes, roughly. */
function room(length: Length): number {
  return length.text.length * 6.2
}
</script>

<template>
  <svg class="board" :width="width + 2" :height="height + 4" role="img" :aria-label="said">
    <rect x="0" y="2" :width="width" :height="height" fill="url(#saw-waste)" class="whole" />
    <rect
      v-if="keep"
      :x="wasteFrom"
      y="2"
      :width="width - wasteFrom"
      :height="height"
      class="behind"
    />
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
    <g v-if="keep">
      <title>keep {{ keep.length.text }}</title>
      <rect
        :x="keep.start * scale"
        y="2.5"
        :width="Math.max(0, (keep.end - keep.start) * scale - 0.5)"
        :height="height - 1"
        class="keep"
      />
      <text
        v-if="room(keep.length) < (keep.end - keep.start) * scale"
        :x="((keep.start + keep.end) / 2) * scale"
        :y="height / 2 + 6"
        text-anchor="middle"
        class="keep-text"
      >
        <tspan v-if="room(keep.length) + KEEP_WORD < (keep.end - keep.start) * scale">
          {{ 'keep\u00a0' }}
        </tspan>
        <LengthSpans :length="keep.length" />
      </text>
    </g>
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

.behind {
  fill: rgb(var(--v-theme-saw));
}

.piece {
  cursor: pointer;
}

.edge {
  fill: none;
  stroke: #17232a;
  stroke-opacity: 0.55;
  stroke-width: 1;
}

.bevel {
  stroke: rgb(var(--v-theme-on-wood));
  stroke-width: 1;
  stroke-dasharray: 3 2;
}

.lit .edge {
  stroke: #1b5cb8;
  stroke-opacity: 1;
  stroke-width: 3;
}

text {
  font-size: 13px;
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
  font-size: 12px;
  font-weight: 600;
  fill: rgb(var(--v-theme-on-surface));
}
</style>
