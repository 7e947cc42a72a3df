<script setup lang="ts">
import { computed } from 'vue'
import type { Layout, Part } from '../api'
import { LengthText } from '../shared'
import LengthSpans from './LengthSpans.vue'
import { TICKS_PER_INCH } from './ticks'

const props = defineProps<{
  layout: Layout
  kind: string
  parts: Map<string, Part>
  lit: string | undefined
}>()

const PER_INCH = 17
const MARGIN = 3
const DIMENSION_ROOM = 15
const THROUGH_ROOM = 44

function pixels(ticks: number): number {
  return (ticks / TICKS_PER_INCH) * PER_INCH
}

/** The corners of a strip seen on its end, and where its mark stands. */
function outlineOf(strip: Layout['rips'][number]['strips'][number]) {
  const [a, b, c, d] = strip.corners
  const [faceLeft, faceRight] = [pixels(a), pixels(b)]
  const [backRight, backLeft] = [pixels(c), pixels(d)]
  const top = pixels(strip.z.low)
  const bottom = pixels(strip.z.high)
  return {
    points: `${faceLeft},${top} ${faceRight},${top} ${backRight},${bottom} ${backLeft},${bottom}`,
    middle: (faceLeft + faceRight + backRight + backLeft) / 4,
    centre: (top + bottom) / 2,
    room: Math.min(Math.min(faceRight, backRight) - Math.max(faceLeft, backLeft), bottom - top - 1),
  }
}

const wide = computed(() => pixels(props.layout.section?.width.ticks ?? 0))
const high = computed(() => pixels(props.layout.section?.thickness.ticks ?? 0))
const sawn = computed(() => props.layout.rips.filter((segment) => segment.cuts.length))

/** The rips and resaws of a segment as lines on its end, each place once. */
function linesOf(segment: Layout['rips'][number]) {
  const seen = new Set<string>()
  return segment.cuts.flatMap((number) => {
    const cut = props.layout.cuts[number - 1]
    const [x1, y1, x2, y2] = (cut?.on_end ?? []).map(pixels)
    const key = `${cut?.saw} ${cut?.on_end}`
    if (!cut || x1 === undefined || seen.has(key)) return []
    seen.add(key)
    return [{ ...cut, x1, y1: y1!, x2: x2!, y2: y2! }]
  })
}

const ends = computed(() =>
  sawn.value.map((segment) => {
    const lines = linesOf(segment)
    return {
      ...segment,
      strips: segment.strips.map((strip) => ({
        ...strip,
        ...outlineOf(strip),
        marks: strip.parts.map((part) => props.parts.get(part)?.mark ?? '').join(' '),
        lit: props.lit !== undefined && strip.parts.includes(props.lit),
      })),
      /** Every second dimension stands a row lower, so that near ones do not meet. */
      lines: lines
        .filter((line) => line.saw === 'rip' && !line.angle)
        .map((line, index) => ({ ...line, row: index % 2 })),
      /** Tilted saw lines have theirs above, where they meet the face. */
      tilted: lines
        .filter((line) => line.saw === 'rip' && line.angle)
        .map((line, index) => ({ ...line, row: index % 2 })),
      resaws: lines.filter((line) => line.saw === 'resaw'),
      room: lines.some((line) => line.saw === 'rip' && line.angle) ? 2 * DIMENSION_ROOM : 0,
    }
  }),
)
const said = computed(() =>
  ends.value
    .map(({ lines, tilted, resaws }) =>
      [
        ...lines.map((line) => `ripped at ${line.at.text}`),
        ...tilted.map((line) => `ripped at ${line.at.text}, blade at ${line.angle}`),
        ...resaws.map((line) => `resawn at ${line.at.text}`),
      ].join(', '),
    )
    .join('; '),
)
</script>

<template>
  <div
    v-if="ends.length"
    class="ends"
    role="img"
    :aria-label="`Board ${layout.first} seen on its end: ${said}`"
  >
    <figure v-for="segment in ends" :key="segment.start.ticks" aria-hidden="true">
      <svg
        :width="wide + 2 * MARGIN + (segment.resaws.length || segment.room ? THROUGH_ROOM : 8)"
        :height="high + 2 * MARGIN + segment.room + (segment.lines.length ? 2 * DIMENSION_ROOM : 0)"
        class="end"
      >
        <g :transform="`translate(${MARGIN} ${MARGIN + segment.room})`">
          <rect :width="wide" :height="high" fill="url(#saw-waste)" class="outline" />
          <g v-for="(strip, index) in segment.strips" :key="index" :class="{ lit: strip.lit }">
            <polygon
              :points="strip.points"
              class="strip"
              :style="{ fill: `rgb(var(--v-theme-${kind}))` }"
            />
            <text
              v-if="strip.room > 9"
              :x="strip.middle"
              :y="strip.centre + 4.5"
              text-anchor="middle"
              class="mark"
            >
              {{ strip.marks }}
            </text>
          </g>
          <g v-for="line in segment.lines" :key="line.number" class="line">
            <path
              :d="`M${line.x1} ${line.y1 - 2}V${line.y2}${line.y2 > high - 1 ? `V${high + 5 + line.row * DIMENSION_ROOM}` : ''}`"
            />
            <text
              :x="line.x1"
              :y="high + 14 + line.row * DIMENSION_ROOM"
              text-anchor="middle"
              class="dimension"
            >
              <LengthSpans :length="line.at" />
            </text>
          </g>
          <g v-for="line in segment.tilted" :key="line.number" class="line">
            <path
              :d="`M${line.x1} ${-4 - (1 - line.row) * DIMENSION_ROOM}V${line.y1}L${line.x2} ${line.y2}`"
            />
            <text :x="line.x1 + 3" :y="-5 - (1 - line.row) * DIMENSION_ROOM" class="dimension">
              <LengthSpans v-if="line.at.ticks" :length="line.at" />
              <tspan class="tilt" dx="4">{{ line.angle }}</tspan>
            </text>
          </g>
          <g v-for="line in segment.resaws" :key="line.number" class="line">
            <path :d="`M${line.x1 - 2} ${line.y1}H${line.x2 + 3}`" />
            <text :x="wide + 7" :y="line.y1 + 4" class="dimension">
              <LengthSpans :length="line.at" />
            </text>
          </g>
        </g>
      </svg>
      <figcaption v-if="layout.rips.length > 1" class="quiet">
        <LengthText :length="segment.start" /> to <LengthText :length="segment.end" />
      </figcaption>
    </figure>
  </div>
</template>

<style scoped>
.ends {
  display: flex;
  flex-wrap: wrap;
  align-items: flex-start;
  gap: 6px 20px;
  margin: 2px 0 12px;
}

figure {
  margin: 0;
}

figcaption {
  font-size: var(--text-fine);
}

.end {
  overflow: visible;
}

.outline {
  stroke: rgb(var(--v-theme-quiet));
  stroke-width: 0.6;
}

.strip {
  stroke: rgb(var(--v-theme-on-background));
  stroke-width: 1;
}

.lit .strip {
  stroke: rgb(var(--v-theme-primary));
  stroke-width: 2.5;
}

.mark {
  font-weight: 700;
  font-size: var(--drawn-fine);
  fill: rgb(var(--v-theme-on-wood));
}

.line path {
  stroke: rgb(var(--v-theme-error));
  stroke-width: 1.3;
  fill: none;
}

.tilt {
  font-weight: 400;
}

.dimension {
  font-size: var(--drawn-fine);
  font-weight: 600;
  fill: rgb(var(--v-theme-on-background));
}
</style>
