<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import type { Laid, Length } from '../api'

/** A run to scale: its items on the length that they fill, with the marks beneath. */
const props = defineProps<{
  laid: Laid
  letter: string
  kind: string
  end: 'left' | 'right'
}>()

const MARGIN = 14
const TOP = 16
const HIGH = 96
const RAIL = 20
const MARKED = TOP + HIGH + 34
const PER_LETTER = 7.4
const LEAST_WIDE = 300

const box = useTemplateRef<HTMLElement>('box')
const { width: room } = useElementSize(box)
const width = computed(() => Math.max(LEAST_WIDE, room.value))
const span = computed(() => {
  const starts = props.laid.marks.map((mark) => mark.start)
  const ends = props.laid.marks.map((mark) => mark.start + mark.wide)
  const low = Math.min(0, ...starts)
  return { low, high: Math.max(props.laid.along.ticks, ...ends) }
})
const scale = computed(
  () => (width.value - 2 * MARGIN) / Math.max(1, span.value.high - span.value.low),
)

function x(ticks: number): number {
  return MARGIN + (ticks - span.value.low) * scale.value
}

/** A figure without its unit: that of the whole length stands beneath. */
function bare({ text, mark }: Length): string {
  return text.replace(mark, '').trim()
}

const AT = { near: 0, centre: 0.5, far: 1 } as const
const items = computed(() => {
  let free = -Infinity
  return props.laid.marks.map((mark) => {
    const share = AT[props.laid.side as keyof typeof AT]
    const at = x(mark.start + mark.wide * share)
    const text = bare(mark[props.end])
    const wide = text.length * PER_LETTER
    const written = at - wide / 2 > free
    if (written) free = at + wide / 2 + 8
    return {
      ...mark,
      x: x(mark.start),
      pixels: mark.wide * scale.value,
      at,
      text,
      written,
      named: mark.wide * scale.value > 26,
    }
  })
})
const side = computed(() => ({ near: '×▸', far: '◂×', centre: '' })[props.laid.side] ?? '')
const foot = MARKED + 34
</script>

<template>
  <div ref="box">
    <svg
      :width="width"
      :height="foot + 26"
      role="img"
      :aria-label="`${laid.count} in a row along ${laid.along.text}`"
    >
      <rect
        :x="x(0)"
        :y="TOP + (HIGH - RAIL) / 2"
        :width="laid.along.ticks * scale"
        :height="RAIL"
        class="rail"
      />
      <g v-for="item in items" :key="item.number">
        <rect
          :x="item.x"
          :y="TOP"
          :width="Math.max(1, item.pixels)"
          :height="HIGH"
          class="item"
          :class="{ out: item.left_out, loose: item.loose }"
          :style="{ fill: item.left_out ? 'none' : `rgb(var(--v-theme-${kind}))` }"
        />
        <text v-if="item.named" :x="item.x + item.pixels / 2" :y="TOP + HIGH / 2 + 5" class="name">
          {{ letter }}{{ item.number }}
        </text>
        <template v-if="!item.left_out">
          <line :x1="item.at" :x2="item.at" :y1="TOP + HIGH" :y2="MARKED" class="mark" />
          <text
            v-if="side && item.pixels > 22"
            :x="item.at + (laid.side === 'far' ? -4 : 4)"
            :y="MARKED - 4"
            class="side"
            :class="{ before: laid.side === 'far' }"
          >
            {{ side }}
          </text>
          <text v-if="item.written" :x="item.at" :y="MARKED + 14" class="figure">
            {{ item.text }}
          </text>
        </template>
      </g>
      <g class="whole">
        <line :x1="x(0)" :x2="x(laid.along.ticks)" :y1="foot" :y2="foot" />
        <line :x1="x(0)" :x2="x(0)" :y1="foot - 6" :y2="foot + 6" />
        <line :x1="x(laid.along.ticks)" :x2="x(laid.along.ticks)" :y1="foot - 6" :y2="foot + 6" />
        <text :x="x(laid.along.ticks / 2)" :y="foot + 18" class="figure">
          {{ laid.along.text }}
        </text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
svg {
  display: block;
  margin-top: 12px;
  max-width: 100%;
}

.rail {
  fill: rgb(var(--v-theme-treated));
  stroke: rgb(var(--v-theme-on-wood), 0.5);
}

.item {
  stroke: rgb(var(--v-theme-on-wood), 0.6);
}

.out {
  stroke: rgb(var(--v-theme-quiet));
  stroke-dasharray: 4 3;
}

.loose {
  fill-opacity: 0.55;
}

.name,
.figure {
  text-anchor: middle;
}

.name {
  font-size: var(--drawn);
  font-weight: 650;
  fill: rgb(var(--v-theme-on-wood));
}

.out + .name {
  fill: rgb(var(--v-theme-quiet));
}

.figure {
  font-size: var(--drawn);
  fill: rgb(var(--v-theme-on-background));
}

.mark {
  stroke: rgb(var(--v-theme-saw));
  stroke-width: 2;
}

.side {
  font-size: var(--drawn-fine);
  fill: rgb(var(--v-theme-saw));
}

.before {
  text-anchor: end;
}

.whole line {
  stroke: rgb(var(--v-theme-on-background));
}
</style>
