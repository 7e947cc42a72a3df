<script setup lang="ts">
import { useEventListener, useWakeLock } from '@vueuse/core'
import { computed, defineAsyncComponent, nextTick, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import type { BenchEvent } from '../api/client'
import { isElsewhere, isTyping } from '../shared/typing'
import BeforeCutting from './BeforeCutting.vue'
import SetUpCard from './SetUpCard.vue'
import ShopNotices from './ShopNotices.vue'
import { useCutting } from './useCutting'

const loadWentWrong = () => import('./WentWrong.vue')
const WentWrong = defineAsyncComponent(loadWentWrong)
const LATER_MS = 1500

/** At the saw: one set-up at a time, done or gone wrong. */
const project = String(useRoute().params.id)
const bench = useCutting(project)
const { cutting, error, offline, cards, at, card, row, isAllCut, unsent, refusals, now } = bench

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
const isBegun = computed(() => Boolean(cutting.value?.id))
const showsList = computed(() => !isBegun.value || overview.value)
const lastRefused = computed(() => refusals.value.at(-1)?.event)
const again = ref<BenchEvent>()

/** What the large press does. */
const act = computed(() => {
  const one = row.value
  if (!one) return ''
  return one.left.length > 1
    ? `Cut all ${one.left.length}, board ${one.board}`
    : `Cut, board ${one.board}`
})
const waitsOnly = computed(() => Boolean(card.value && !card.value.isDone && !row.value))

async function press() {
  if (row.value) await bench.done([row.value])
}

async function pressAll() {
  const rows = (card.value?.rows ?? []).filter((one) => one.left.length && !one.waits)
  await bench.done(rows)
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
    <header class="head">
      <RouterLink :to="`/projects/${project}`" class="back" aria-label="To the desk">‹</RouterLink>
      <span class="called name">{{ cutting?.name ?? 'Shop' }}</span>
      <button
        v-if="isBegun"
        type="button"
        class="progress"
        :aria-expanded="overview"
        :aria-label="`All ${cards.length} set-ups`"
        @click="overview = !overview"
      >
        <span
          v-for="(one, n) in cards"
          :key="one.key"
          class="step"
          :class="{ done: one.isDone, here: n === at }"
        ></span>
      </button>
      <span v-if="isBegun" class="so-far" role="status">
        <template v-if="isAllCut">all cut</template>
        <template v-else
          >set-up {{ at + 1 }} of {{ cards.length
          }}<span class="minutes">, about {{ bench.minutes.value }} min left</span></template
        ><template v-if="unsent.length">, {{ unsent.length }} not sent</template>
      </span>
      <span v-else-if="cutting" class="so-far">{{ cards.length }} set-ups</span>
    </header>

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
      <main class="body">
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
      </main>

      <footer v-if="isBegun && !showsList && !isAllCut" class="foot">
        <div class="small">
          <v-btn height="48" variant="text" :disabled="at === 0" @click="bench.look(at - 1)"
            >‹ Before</v-btn
          >
          <v-btn height="48" variant="text" :disabled="!now.last" @click="bench.undo()">Undo</v-btn>
          <v-btn
            v-if="card && card.rows.filter((one) => one.left.length).length > 1"
            height="48"
            variant="text"
            @click="pressAll"
            >The whole set-up is cut</v-btn
          >
          <v-btn
            height="48"
            variant="text"
            :disabled="at === cards.length - 1"
            @click="bench.look(at + 1)"
            >Next ›</v-btn
          >
        </div>
        <div class="two">
          <button v-if="row" type="button" class="done" @click="press">{{ act }}</button>
          <button
            v-else
            type="button"
            class="done"
            :disabled="waitsOnly"
            @click="bench.look(at + 1)"
          >
            {{ waitsOnly ? 'Waits for the new plan' : 'Done here: next set-up' }}
          </button>
          <button type="button" class="miscut" @click="goWrong">Miscut</button>
        </div>
      </footer>

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

.head {
  display: flex;
  align-items: center;
  gap: 16px;
  min-height: 60px;
  padding: 4px 16px 4px 0;
  background: rgb(var(--v-theme-ink));
  color: rgb(var(--v-theme-on-ink));
}

.back {
  flex: none;
  width: 48px;
  height: 48px;
  font-size: var(--text-huge);
  line-height: 42px;
  text-align: center;
  color: inherit;
  text-decoration: none;
}

.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: var(--text-large);
}

.progress {
  flex: 1;
  display: flex;
  gap: 3px;
  min-width: 60px;
  max-width: 340px;
  height: 48px;
  align-items: center;
  padding: 0;
}

.step {
  flex: 1;
  min-width: 2px;
  height: 10px;
  background: rgb(var(--v-theme-ink-raised));
}

.step.done {
  background: rgb(var(--v-theme-done-on-ink));
}

.step.here {
  background: rgb(var(--v-theme-tape));
}

.so-far {
  margin-left: auto;
  font-size: var(--text-plain);
  color: rgb(var(--v-theme-ink-quiet));
  text-align: right;
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
  font-size: 112px;
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

.foot {
  position: sticky;
  bottom: var(--foot);
  z-index: 5;
  background: rgb(var(--v-theme-surface));
}

.small {
  display: flex;
  justify-content: space-between;
  padding: 0 10px;
  border-top: 1px solid rgb(var(--v-theme-rule));
}

.small :deep(.v-btn) {
  font-size: var(--text-plain);
}

.two {
  display: grid;
  grid-template-columns: 1fr 282px;
}

.done {
  min-height: 112px;
  font-size: 32px;
  font-weight: 680;
  color: rgb(var(--v-theme-on-done));
  background: rgb(var(--v-theme-done));
}

.done:disabled {
  background: rgb(var(--v-theme-quiet));
}

.miscut {
  font-size: 25px;
  font-weight: 650;
  color: rgb(var(--v-theme-error));
  border-top: 3px solid rgb(var(--v-theme-error));
}

@media (max-width: 820px) {
  .head {
    gap: 8px;
    padding-right: 12px;
  }

  .minutes {
    display: none;
  }

  .name {
    flex: 0 1 auto;
  }

  .two {
    grid-template-columns: 1fr 116px;
  }

  .done {
    min-height: 76px;
    font-size: 22px;
  }

  .miscut {
    font-size: 19px;
  }

  .all {
    font-size: 72px;
  }

  .alone {
    padding: 20px 16px;
  }

  .ends {
    padding: 0 14px 24px;
  }
}

@media (max-height: 700px) and (min-width: 821px) {
  .done {
    min-height: 84px;
  }
}
</style>
