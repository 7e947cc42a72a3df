<script setup lang="ts">
import { computed } from 'vue'
import { TICKS_PER_INCH, TICKS_PER_MM } from './ticks'

const props = defineProps<{ unit: string; longest: number; scale: number }>()

const rule = computed(() =>
  props.unit === 'mm'
    ? { step: 100 * TICKS_PER_MM, every: 5, named: (n: number) => `${n / 10}` }
    : { step: 3 * TICKS_PER_INCH, every: 4, named: (n: number) => `${n / 4}′` },
)
const marks = computed(() => {
  const count = Math.floor(props.longest / rule.value.step + 0.001)
  return Array.from({ length: count + 1 }, (_, n) => ({
    x: n * rule.value.step * props.scale,
    major: n % rule.value.every === 0,
    half: rule.value.every === 4 ? n % 4 === 2 : false,
    name:
      n > 0 && n % (rule.value.every === 4 ? 4 : 10) === 0
        ? props.unit === 'mm'
          ? `${n / 10} m`
          : rule.value.named(n)
        : '',
  }))
})
</script>

<template>
  <svg class="ruler" :width="longest * scale + 30" height="24" aria-hidden="true">
    <line x1="0.5" y1="22" :x2="longest * scale" y2="22" class="rule" />
    <g v-for="mark in marks" :key="mark.x">
      <line
        :x1="mark.x + 0.5"
        :x2="mark.x + 0.5"
        :y1="mark.major ? 6 : mark.half ? 13 : 17"
        y2="22"
        class="rule"
      />
      <text v-if="mark.name" :x="mark.x + 4" y="12">{{ mark.name }}</text>
    </g>
  </svg>
</template>

<style scoped>
.ruler {
  display: block;
  overflow: visible;
}

.rule {
  stroke: rgb(var(--v-theme-quiet));
  stroke-width: 1;
}

text {
  font-size: var(--drawn-fine);
  font-stretch: 88%;
  font-weight: 550;
  fill: rgb(var(--v-theme-quiet));
}
</style>
