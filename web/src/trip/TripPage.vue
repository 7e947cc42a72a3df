<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import { computed, defineAsyncComponent, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import type { TripLine as Line } from '../api'
import ChooseYard from './ChooseYard.vue'
import PickChecks from './PickChecks.vue'
import TripLoad from './TripLoad.vue'
import TripNotices from './TripNotices.vue'
import TripRack from './TripRack.vue'
import type { LineNow } from './unsent'
import { useTrip } from './useTrip'

const loadMeasureDialog = () => import('./MeasureDialog.vue')
const loadNumberDialog = () => import('./NumberDialog.vue')
const loadTill = () => import('./TripTill.vue')
const MeasureDialog = defineAsyncComponent(loadMeasureDialog)
const NumberDialog = defineAsyncComponent(loadNumberDialog)
const TripTill = defineAsyncComponent(loadTill)
const LATER_MS = 1500

/** What is not needed at first is there before the connection goes. */
onMounted(() => {
  setTimeout(() => {
    for (const load of [loadMeasureDialog, loadNumberDialog, loadTill]) {
      void load().catch(() => undefined)
    }
  }, LATER_MS)
})

const project = String(useRoute().params.id)
const at = useTrip(project)
const { trip, error, offline, unsent, refusals, taken, checked } = at

if ('serviceWorker' in navigator && import.meta.env.PROD) {
  void navigator.serviceWorker.register('/sw.js')
}

const CHECKS = 'checks'
const TILL = 'till'
const tab = useSessionStorage(`grain-tally:trip-tab-${project}`, CHECKS)
const racks = computed(() =>
  (trip.value?.racks ?? []).map((rack) => ({ ...rack, lines: rack.lines.map(at.now) })),
)
const rack = computed(() => racks.value.find((one) => one.name === tab.value))
const here = computed(() => (rack.value ? rack.value.name : tab.value === TILL ? TILL : CHECKS))
const everything = computed(() => racks.value.flatMap((one) => one.lines))

const asked = ref<Line>()
const asking = ref<'tag' | 'only' | 'measure'>()
const showsNumber = computed({
  get: () => asking.value === 'tag' || asking.value === 'only',
  set: (shown) => {
    if (!shown) asking.value = undefined
  },
})
const showsMeasure = computed({
  get: () => asking.value === 'measure',
  set: (shown) => {
    if (!shown) asking.value = undefined
  },
})
const lastRefused = computed(() => refusals.value.at(-1)?.event)

function ask(what: 'tag' | 'only' | 'measure', line: Line) {
  asked.value = line
  asking.value = what
}

function numberGiven(text: string) {
  const line = asked.value?.key ?? ''
  if (asking.value === 'tag') void at.tell('tag', { line, price: text })
  else void at.tell('only', { line, count: Number(text) })
}

function left(lines: LineNow[]): number {
  return lines.reduce((sum, line) => sum + line.toTake, 0)
}
</script>

<template>
  <div class="trip">
    <header class="head">
      <RouterLink :to="`/projects/${project}/list`" class="back" aria-label="To the list"
        >‹</RouterLink
      >
      <div class="who">
        <span class="called">{{ trip?.yard ?? 'At the yard' }}</span>
        <span class="for">
          <template v-if="trip">for {{ trip.project_name }}</template
          ><template v-if="unsent.length">, {{ unsent.length }} kept here, not sent yet</template>
        </span>
      </div>
      <span v-if="trip" class="figure so-far" role="status">{{ taken }} of {{ trip.wanted }}</span>
    </header>

    <div v-if="error && !trip" class="alone" role="alert">
      <p>{{ error.message }}.</p>
      <p v-if="offline" class="quiet">
        Open this page once with a connection; from then on it works without one.
      </p>
      <ChooseYard v-if="!offline" :project="project" @chosen="at.refetch()" />
      <v-btn height="48" @click="at.refetch()">Try again</v-btn>
      <v-btn height="48" variant="text" :to="`/projects/${project}`">To the desk</v-btn>
    </div>
    <div v-else-if="!trip" class="alone quiet" role="status">Writing the list …</div>

    <template v-else>
      <v-tabs
        :model-value="here"
        class="tabs"
        height="50"
        show-arrows="never"
        slider-color="tape"
        @update:model-value="(now) => (tab = String(now))"
      >
        <v-tab :value="CHECKS">Checks</v-tab>
        <v-tab v-for="one in racks" :key="one.name" :value="one.name">
          {{ one.name }}
          <span class="to-go" :class="{ none: !left(one.lines) }">{{
            left(one.lines) || '✓'
          }}</span>
        </v-tab>
        <v-tab :value="TILL">Till</v-tab>
      </v-tabs>

      <main class="body">
        <TripNotices :at="at" :trip="trip" />
        <PickChecks
          v-if="here === CHECKS"
          :trip="trip"
          :checked="checked"
          @check="(key) => at.tell('checked', { line: key })"
        />
        <TripTill v-else-if="here === TILL" :at="at" :lines="everything" />
        <TripRack
          v-else-if="rack"
          :at="at"
          :rack="rack"
          @only="(line) => ask('only', line)"
          @measure="(line) => ask('measure', line)"
          @tag="(line) => ask('tag', line)"
        />
      </main>

      <TripLoad :trip="trip" :money="at.money.value" />

      <NumberDialog
        v-if="asked"
        v-model="showsNumber"
        :title="asking === 'tag' ? 'Price on the tag' : 'How many are there?'"
        :label="asking === 'tag' ? `One ${asked?.called}` : 'Good ones'"
        :hint="asking === 'tag' ? 'empty: as on the list' : 'with those in your cart'"
        :start="''"
        :decimals="asking === 'tag'"
        @given="numberGiven"
      />
      <MeasureDialog
        v-if="asked"
        v-model="showsMeasure"
        :line="asked"
        :refused="lastRefused"
        :unit="trip.unit === 'mm' ? 'mm' : '″'"
        @measured="(kind, sizes) => at.tell(kind, { line: asked?.key, ...sizes })"
      />
    </template>
  </div>
</template>

<style scoped src="../shared/place-head.css"></style>

<style scoped>
.trip {
  max-width: 620px;
  min-height: calc(100dvh - var(--foot));
  margin: 0 auto;
  display: flex;
  flex-direction: column;
  background: rgb(var(--v-theme-surface));
  line-height: 1.35;
}

.head {
  min-height: 70px;
  padding: 6px 18px 6px 0;
}

.who {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
}

.who .called {
  font-size: var(--text-lead);
}

.for {
  font-size: var(--text-small);
  color: rgb(var(--v-theme-ink-quiet));
}

.so-far {
  font-size: var(--text-figure);
  white-space: nowrap;
}

.tabs {
  flex: none;
  position: sticky;
  top: 0;
  z-index: 4;
  background: rgb(var(--v-theme-background));
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}

.tabs :deep(.v-btn) {
  border: 0;
  min-width: 0;
  padding: 0 11px;
  font-size: var(--text-body);
}

.tabs :deep(.v-tab--selected) {
  background: rgb(var(--v-theme-surface));
  font-weight: 650;
}

.tabs :deep(.v-tab__slider) {
  height: 4px;
}

.to-go {
  margin-left: 6px;
  font-size: var(--text-small);
  font-stretch: var(--condensed);
  color: rgb(var(--v-theme-quiet));
}

.to-go.none {
  color: rgb(var(--v-theme-proven));
}

.body {
  flex: 1;
}

.alone {
  padding: 24px 18px;
  display: grid;
  gap: 12px;
  justify-items: start;
}

.alone p {
  margin: 0;
}

.alone p::first-letter {
  text-transform: uppercase;
}

.alone :deep(.v-btn) {
  font-size: var(--text-body);
}
</style>
