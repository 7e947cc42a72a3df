<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import type { Days, DayStep } from '../api'

/** The days to scale: free hours as light bands, work as bars, waits hatched, now and wanted. */
const props = defineProps<{ days: Days }>()
const chosen = defineModel<string>({ required: true })

const ROW = 42
const TOP = 46
const BAR = 20
const LEAST_DAY = 34 // px
const NAMES_FROM = 46 // px a day, from which on every day is named
const box = useTemplateRef<HTMLElement>('box')
const { width: room } = useElementSize(box)
const count = computed(() => Math.max(1, props.days.days.length))
const width = computed(() => Math.max(room.value, count.value * LEAST_DAY))
const height = computed(() => TOP + props.days.steps.length * ROW + 14)

function x(minutes: number): number {
  return (minutes / Math.max(1, props.days.width)) * width.value
}

const every = computed(() => Math.ceil(NAMES_FROM / (width.value / count.value)))

function top(row: number): number {
  return TOP + row * ROW + 6
}

/** Bars so short that they would not be seen are drawn a little wider. */
function wide(from: number, to: number): number {
  return Math.max(3, x(to) - x(from))
}

function tone(step: DayStep): string {
  if (step.state === 'done' || step.state === 'dry') return 'done'
  return step.state === 'begun' ? 'begun' : ''
}

const marks = computed(() => {
  const found = [{ at: props.days.now, says: 'now', kind: 'now' }]
  if (props.days.wanted !== null)
    found.push({ at: props.days.wanted, says: props.days.wanted_says, kind: 'wanted' })
  return found
})

/** A word beside a line stands on its other side where there is no room. */
function anchor(at: number): { x: number; 'text-anchor': 'start' | 'end' } {
  const near = x(at) > width.value - 130
  return { x: x(at) + (near ? -6 : 6), 'text-anchor': near ? 'end' : 'start' }
}
</script>

<template>
  <div class="drawn">
    <ol class="names" :style="{ paddingTop: `${TOP}px` }">
      <li v-for="step in days.steps" :key="step.key" :style="{ height: `${ROW}px` }">
        <button
          type="button"
          :aria-pressed="step.key === chosen"
          :class="{ chosen: step.key === chosen, over: step.state === 'done' }"
          @click="chosen = step.key === chosen ? '' : step.key"
        >
          <span class="called">{{ step.name }}</span>
          <span class="detail" :class="{ again: step.again }">
            <template v-if="step.again">{{ step.again }}</template>
            <template v-else-if="step.state === 'done'">done</template>
            <template v-else
              ><span v-if="step.critical" class="critical">cannot wait</span
              ><template v-if="step.critical && step.detail">, </template
              >{{ step.detail }}</template
            >
          </span>
        </button>
      </li>
    </ol>
    <div ref="box" class="scale" tabindex="0" role="group" aria-label="The days to scale">
      <svg :width="width" :height="height" aria-hidden="true">
        <defs>
          <pattern
            id="waiting"
            width="7"
            height="7"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <line class="hatch" x1="0" y1="0" x2="0" y2="7" />
          </pattern>
        </defs>
        <rect
          v-for="([from, to], n) in days.free as [number, number][]"
          :key="`f${n}`"
          class="free"
          :x="x(from)"
          :y="TOP - 6"
          :width="wide(from, to)"
          :height="height - TOP"
        />
        <template v-for="(day, n) in days.days" :key="day.at">
          <line
            class="day"
            :x1="x(day.at)"
            :x2="x(day.at)"
            :y1="n % every ? 20 : 0"
            :y2="height - 8"
          />
          <text v-if="n % every === 0" class="name" :x="x(day.at) + 5" y="14">
            {{ day.called }}
          </text>
        </template>
        <g v-for="(step, row) in days.steps" :key="step.key">
          <rect
            v-if="step.key === chosen"
            class="chosen-row"
            x="0"
            :y="TOP + row * ROW"
            :width="width"
            :height="ROW"
          />
          <rect
            v-if="step.free_from > step.end"
            class="wait"
            :x="x(step.end)"
            :y="top(row)"
            :width="wide(step.end, step.free_from)"
            :height="BAR"
            fill="url(#waiting)"
          />
          <rect
            v-for="([from, to], n) in step.spans as [number, number][]"
            :key="n"
            class="work"
            :class="[tone(step), { critical: step.critical }]"
            :x="x(from)"
            :y="top(row)"
            :width="wide(from, to)"
            :height="BAR"
          />
          <text
            v-if="step.wait"
            class="wait-says"
            v-bind="anchor(step.free_from)"
            :y="top(row) + 15"
          >
            {{ step.wait }}
          </text>
        </g>
        <g v-for="mark in marks" :key="mark.kind" :class="mark.kind">
          <line class="mark" :x1="x(mark.at)" :x2="x(mark.at)" y1="22" :y2="height - 8" />
          <text class="mark-says" v-bind="anchor(mark.at)" y="34">{{ mark.says }}</text>
        </g>
      </svg>
    </div>
  </div>
</template>

<style scoped>
.drawn {
  display: grid;
  grid-template-columns: minmax(220px, 300px) minmax(0, 1fr);
}

.names {
  margin: 0;
  padding: 0;
  list-style: none;
}

.names button {
  display: block;
  width: 100%;
  height: 42px;
  padding: 2px 12px 0 0;
  text-align: left;
  line-height: 1.25;
  overflow: hidden;
}

.names .called {
  font-size: var(--text-body);
}

.names .called,
.detail {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.names .chosen {
  background: rgb(var(--v-theme-selected));
}

.over .called {
  color: rgb(var(--v-theme-quiet));
}

.detail {
  font-size: var(--text-fine);
  color: rgb(var(--v-theme-quiet));
}

.detail .critical,
.again {
  color: rgb(var(--v-theme-error));
}

.scale {
  overflow-x: auto;
  min-width: 0;
}

svg {
  display: block;
}

text {
  font-size: var(--drawn);
  fill: rgb(var(--v-theme-on-background));
}

.free {
  fill: rgb(var(--v-theme-surface));
}

.day {
  stroke: rgb(var(--v-theme-rule));
  stroke-width: 2;
}

.name {
  font-weight: 650;
}

.chosen-row {
  fill: rgb(var(--v-theme-selected));
  opacity: 0.6;
}

.hatch {
  stroke: rgb(var(--v-theme-quiet));
  stroke-width: 2.4;
  opacity: 0.7;
}

.wait {
  stroke: rgb(var(--v-theme-quiet));
}

.wait-says {
  fill: rgb(var(--v-theme-quiet));
  font-size: var(--drawn);
}

.work {
  fill: rgb(var(--v-theme-on-background));
}

.work.critical {
  stroke: rgb(var(--v-theme-error));
  stroke-width: 2;
}

.work.done {
  fill: rgb(var(--v-theme-done));
}

.work.begun {
  fill: rgb(var(--v-theme-tape));
  stroke: rgb(var(--v-theme-on-background));
}

.mark {
  stroke-width: 3;
}

.mark-says {
  font-weight: 650;
}

.now .mark {
  stroke: rgb(var(--v-theme-tape));
}

.wanted .mark {
  stroke: rgb(var(--v-theme-saw));
}

.wanted .mark-says {
  fill: rgb(var(--v-theme-error));
}
</style>
