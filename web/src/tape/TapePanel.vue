<script setup lang="ts">
import { useEventListener, useLocalStorage } from '@vueuse/core'
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import { connect, fieldInHand, panelOpen, type Tape } from './tape'

const SIXTY_FOURTHS = 64
const STEPS = {
  in: [
    { by: -64, label: '−1' },
    { by: -4, label: '−1⁄16' },
    { by: -1, label: '−1⁄64' },
    { by: 1, label: '+1⁄64' },
    { by: 4, label: '+1⁄16' },
    { by: 64, label: '+1' },
  ],
  mm: [
    { by: -200, label: '−100' },
    { by: -20, label: '−10' },
    { by: -1, label: '−½' },
    { by: 1, label: '+½' },
    { by: 20, label: '+10' },
    { by: 200, label: '+100' },
  ],
}

const unit = useLocalStorage<'in' | 'mm'>('grain-tally:tape-unit', 'in')
const shown = useLocalStorage('grain-tally:tape-reading', { in: 5 * 64 + 28, mm: 277 })
const into = ref('')
const steps = computed(() => STEPS[unit.value])
const reading = computed(() => {
  const at = shown.value[unit.value]
  if (unit.value === 'mm') return `${at / 2}mm`
  const whole = Math.floor(at / SIXTY_FOURTHS)
  let top = at % SIXTY_FOURTHS
  let bottom = SIXTY_FOURTHS
  while (top && top % 2 === 0) {
    top /= 2
    bottom /= 2
  }
  return top ? `${whole ? `${whole} ` : ''}${top}/${bottom}in` : `${whole}in`
})

function move(by: number) {
  const now = { ...shown.value }
  now[unit.value] = Math.max(1, now[unit.value] + by)
  shown.value = now
}

let say: ((text: string) => void) | undefined
const simulated: Tape = {
  start: (listener) => (say = listener),
  stop: () => (say = undefined),
}

function send() {
  say?.(reading.value)
}

let letGo: () => void
onMounted(() => (letGo = connect(simulated)))
onBeforeUnmount(() => letGo())
useEventListener(document, 'focusin', () => (into.value = fieldInHand()))
useEventListener(document, 'focusout', () => (into.value = ''))
useEventListener(
  document,
  'keydown',
  (event: KeyboardEvent) => {
    if (event.altKey && event.key === 'Enter') {
      event.preventDefault()
      event.stopPropagation()
      send()
    }
  },
  { capture: true },
)
</script>

<template>
  <aside class="panel" aria-label="Digital tape, simulated">
    <div class="bar">
      <span class="called">Digital tape</span>
      <span class="small">simulated</span>
      <button type="button" class="close" aria-label="Put the tape away" @click="panelOpen = false">
        ×
      </button>
    </div>
    <output class="reading figure">{{ reading }}</output>
    <div class="steps" role="group" aria-label="Move the tape">
      <button
        v-for="{ by, label } in steps"
        :key="by"
        type="button"
        @pointerdown.prevent
        @click="move(by)"
      >
        {{ label }}
      </button>
    </div>
    <div class="foot">
      <button
        type="button"
        :aria-label="unit === 'in' ? 'inches: read in millimetres' : 'mm: read in inches'"
        @pointerdown.prevent
        @click="unit = unit === 'in' ? 'mm' : 'in'"
      >
        {{ unit === 'in' ? 'inches' : 'mm' }}
      </button>
      <button type="button" class="send" :disabled="!into" @pointerdown.prevent @click="send">
        Send
      </button>
    </div>
    <p class="small into" role="status">
      {{ into ? `into ${into} (Alt Enter)` : 'go to a length field first' }}
    </p>
  </aside>
</template>

<style scoped>
.panel {
  position: fixed;
  right: 14px;
  bottom: 14px;
  z-index: 2600;
  width: 248px;
  color: rgb(var(--v-theme-on-tape));
  background: rgb(var(--v-theme-tape));
  border: 2px solid rgb(var(--v-theme-on-tape));
  border-radius: var(--corner);
  padding: 6px 10px 8px;
}

.bar {
  display: flex;
  align-items: baseline;
  gap: 8px;
}

.close {
  margin-left: auto;
  min-width: 28px;
  min-height: 28px;
  font-size: var(--text-lead);
  line-height: 1;
}

.reading {
  display: block;
  font-size: var(--text-huge);
  line-height: 1.25;
  background: rgb(var(--v-theme-on-tape));
  color: rgb(var(--v-theme-led));
  border-radius: var(--corner);
  text-align: right;
  padding: 2px 10px;
  margin: 2px 0 6px;
}

.steps {
  display: grid;
  grid-template-columns: repeat(6, 1fr);
  gap: 3px;
}

.panel button:not(.close) {
  min-height: 30px;
  border: 1px solid rgb(var(--v-theme-on-tape));
  border-radius: var(--corner);
  font-size: var(--text-fine);
  font-weight: 600;
  cursor: pointer;
}

.panel button:disabled {
  opacity: 0.55;
  cursor: default;
}

.foot {
  display: grid;
  grid-template-columns: 1fr 2fr;
  gap: 3px;
  margin-top: 3px;
}

.send:not(:disabled) {
  background: rgb(var(--v-theme-on-tape));
  color: rgb(var(--v-theme-led));
}

.small {
  font-size: var(--text-fine);
}

.into {
  margin: 5px 0 0;
  min-height: 1.2em;
}
</style>
