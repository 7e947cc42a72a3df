<script setup lang="ts">
import { useEventListener, useWakeLock } from '@vueuse/core'
import { computed, defineAsyncComponent, nextTick, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import type { BenchEvent } from '../api'
import { isElsewhere, isTyping } from '../shared'
import BeforeCutting from './BeforeCutting.vue'
import SetUpCard from './SetUpCard.vue'
import ShopFoot from './ShopFoot.vue'
import ShopHead from './ShopHead.vue'
import ShopNotices from './ShopNotices.vue'
import { useCutting } from './useCutting'

const loadWentWrong = () => import('./WentWrong.vue')
const WentWrong = defineAsyncComponent(loadWentWrong)
const LATER_MS = 1500

/** At the saw: one set-up at a time, done or gone wrong. */
const project = String(useRoute().params.id)
const bench = useCutting(project)
const { cutting, error, offline, at, card, row, isAllCut, refusals, now } = bench

if ('serviceWorker' in navigator && import.meta.env.PROD) {
  void navigator.serviceWorker.register('/sw.js')
}
const awake = useWakeLock()
onMounted(() => {
  if (awake.isSupported.value) void awake.request('screen').catch(() => undefined)
  setTimeout(() => void loadWentWrong().catch(() => undefined), LATER_MS)
})

const overview = ref(false)
const wrong = ref(false)
const ending = ref('')
const busy = ref(false)
const isOver = computed(() => Boolean(cutting.value?.finished))
const isBegun = computed(() => Boolean(cutting.value?.id) && !isOver.value)
const showsList = computed(() => !isOver.value && (!isBegun.value || overview.value))
const lastRefused = computed(() => refusals.value.at(-1)?.event)
const again = ref<BenchEvent>()

async function press() {
  if (row.value) await bench.done([row.value])
}

function goWrong() {
  again.value = undefined
  wrong.value = true
}

function typeAgain() {
  again.value = lastRefused.value
  refusals.value.pop()
  wrong.value = true
}

function chosen() {
  overview.value = false
  void nextTick(() => window.scrollTo(0, 0))
}

async function end(how: () => Promise<string>) {
  busy.value = true
  ending.value = await how()
  busy.value = false
  if (!ending.value) {
    overview.value = false
    await bench.refetch()
  }
}

useEventListener('keydown', (event: KeyboardEvent) => {
  if (!isBegun.value || wrong.value || isTyping(event) || isElsewhere(event)) return
  const undoes = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z'
  if (undoes || event.key === 'Backspace') void bench.undo()
  else if (event.ctrlKey || event.metaKey || event.altKey) return
  else if (event.key === 'ArrowRight') bench.look(at.value + 1)
  else if (event.key === 'ArrowLeft') bench.look(at.value - 1)
  else if (event.key === ' ' && !(event.target instanceof HTMLButtonElement)) void press()
  else if (event.key.toLowerCase() === 'm') goWrong()
  else if (event.key.toLowerCase() === 'o') overview.value = !overview.value
  else return
  event.preventDefault()
})
</script>

<template>
  <div class="shop">
    <ShopHead
      v-model="overview"
      :bench="bench"
      :is-begun="isBegun"
      :is-over="isOver"
      :project="project"
    />

    <div v-if="error && !cutting" class="alone" role="alert">
      <p>{{ error.message }}.</p>
      <p v-if="offline" class="quiet">
        Open this page once with a connection; once cutting is begun it works without one.
      </p>
      <v-btn height="48" @click="bench.refetch()">Try again</v-btn>
      <v-btn height="48" variant="text" :to="`/projects/${project}`">To the desk</v-btn>
    </div>
    <div v-else-if="!cutting" class="alone quiet" role="status">Setting up …</div>

    <template v-else>
      <ShopNotices :bench="bench" :cutting="cutting" @again="typeAgain" />
      <div class="body" role="region" aria-label="At the saw" tabindex="0">
        <template v-if="showsList">
          <BeforeCutting :bench="bench" :cutting="cutting" @chosen="chosen" />
          <div v-if="isBegun" class="ends">
            <p v-if="ending" role="alert" class="text-error">{{ ending }}</p>
            <v-btn height="48" :loading="busy" @click="end(bench.finish)"
              >Put away: the rest goes on the rack</v-btn
            >
            <v-btn v-if="!now.done.size" height="48" variant="text" @click="end(bench.callOff)"
              >Call it off</v-btn
            >
          </div>
        </template>
        <div v-else-if="isOver" class="alone">
          <p class="all figure">All cut</p>
          <p class="quiet">It is put away: what was left is on the rack.</p>
          <p v-if="ending" role="alert" class="text-error">{{ ending }}</p>
          <v-btn height="48" :loading="busy" @click="end(bench.openAgain)">Open it again</v-btn>
          <v-btn height="48" variant="text" :to="{ name: 'rack' }">To the rack</v-btn>
        </div>
        <div v-else-if="isAllCut" class="alone">
          <p class="all figure">All cut</p>
          <p class="quiet">
            Offcuts worth keeping and boards that were not needed go on the rack; what is cut stays
            cut for whatever is planned next.
          </p>
          <p v-if="ending" role="alert" class="text-error">{{ ending }}</p>
          <v-btn
            height="64"
            color="primary"
            variant="flat"
            :loading="busy"
            @click="end(bench.finish)"
            >Put away</v-btn
          >
          <v-btn height="48" @click="bench.undo()">Undo the last press</v-btn>
        </div>
        <SetUpCard v-else-if="card" :card="card" :row="row" />
      </div>

      <ShopFoot
        v-if="isBegun && !showsList && !isAllCut"
        :bench="bench"
        @cut="press"
        @wrong="goWrong"
      />

      <WentWrong
        v-model="wrong"
        :cutting="cutting"
        :card="card"
        :row="row"
        :refused="again"
        @told="(kind, more) => bench.tell(kind, more)"
      />
    </template>
  </div>
</template>

<style scoped>
.shop {
  min-height: calc(100dvh - var(--foot));
  display: flex;
  flex-direction: column;
  background: rgb(var(--v-theme-surface));
}

.body {
  flex: 1;
  min-height: 0;
}

.alone {
  padding: 24px 34px;
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

.all {
  font-size: var(--far-words);
  line-height: 1;
}

.ends {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  max-width: 920px;
  margin: 0 auto;
  padding: 0 24px 40px;
}

/* What is at the head and at the foot is always there. */
@media (min-width: 821px) and (min-height: 560px) {
  .shop {
    height: calc(100dvh - var(--head));
    min-height: 0;
  }

  .body {
    overflow-y: auto;
  }
}

@media (min-width: 821px) and (max-width: 1100px) and (min-height: 560px) {
  .shop {
    height: 100dvh;
  }
}

@media (max-width: 820px) {
  .all {
    font-size: var(--far-words);
  }

  .alone {
    padding: 20px 16px;
  }

  .ends {
    padding: 0 14px 24px;
  }
}
</style>
