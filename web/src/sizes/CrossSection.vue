<script setup lang="ts">
import { computed } from 'vue'
import type { BookSize } from '../api'
import { TICKS_PER_INCH } from '../drawing'
import { LengthText } from '../shared'

const props = defineProps<{ size: BookSize }>()

const PER_INCH = 9
const WIDEST = 12 * PER_INCH
const RANDOM = 5 * PER_INCH

const thick = computed(() => (props.size.thickness.inches.ticks / TICKS_PER_INCH) * PER_INCH)
const whole = computed(() =>
  props.size.width ? (props.size.width.inches.ticks / TICKS_PER_INCH) * PER_INCH : RANDOM,
)
const wide = computed(() => Math.min(whole.value, WIDEST))
const broken = computed(() => !props.size.width || whole.value > WIDEST)
const outline = computed(() => {
  const right = wide.value
  const bottom = thick.value
  if (!broken.value) return `M0 0H${right}V${bottom}H0Z`
  const middle = bottom / 2
  return `M0 0H${right}L${right - 3} ${middle}L${right + 2} ${middle}L${right} ${bottom}H0Z`
})
</script>

<template>
  <figure>
    <svg :width="wide + 6" :height="thick + 4" aria-hidden="true">
      <path :d="outline" transform="translate(2 2)" class="wood" />
    </svg>
    <figcaption>
      <strong class="called">{{ size.name }}</strong>
      <span>
        <LengthText :length="size.thickness.inches" bare />
        <template v-if="size.width"> × <LengthText :length="size.width.inches" /> </template>
        <template v-else>&nbsp;thick, widths at random</template>
      </span>
      <span class="quiet">
        <LengthText :length="size.thickness.millimetres" bare />
        <template v-if="size.width"> × <LengthText :length="size.width.millimetres" /> </template>
        <template v-else>&nbsp;mm</template>
      </span>
      <span v-if="size.green_thickness && size.green_width" class="quiet">
        green <LengthText :length="size.green_thickness.inches" bare /> ×
        <LengthText :length="size.green_width.inches" />
      </span>
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  display: flex;
  flex-direction: column;
  justify-content: flex-end;
  gap: 5px;
  min-width: 124px;
}

.wood {
  fill: rgb(var(--v-theme-plain));
  stroke: rgb(var(--v-theme-on-background));
  stroke-width: 1.2;
}

figcaption {
  display: flex;
  flex-direction: column;
  font-size: var(--text-small);
  line-height: 1.35;
  min-height: 4.6em;
}

strong {
  font-size: var(--text-plain);
}
</style>
