<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue'
import type { Cutting } from '../api'
import { counted, LengthText } from '../shared'
import type { AtTheBench, Order } from './useCutting'

/** All set-ups in a list, the two orders they can be made in, and what belongs to no set-up: before
 * anything is cut the way to begin, after that the way to any of them. */
const props = defineProps<{ bench: AtTheBench; cutting: Cutting }>()
const emit = defineEmits<{ chosen: [] }>()
const { order, cards, at } = props.bench
const busy = ref(false)
const printing = ref(false)
const OnPaper = defineAsyncComponent(() => import('./OnPaper.vue'))
const isBegun = computed(() => Boolean(props.cutting.id))

const ORDERS: { value: Order; title: string; text: string }[] = [
  {
    value: 'by_stop',
    title: 'Stop by stop',
    text: 'each stop, fence and angle set as seldom as can be; boards are taken up again',
  },
  {
    value: 'by_board',
    title: 'Board after board',
    text: 'each board carried once; the stop is moved more often',
  },
]

async function start() {
  busy.value = true
  const outcome = await props.bench.start()
  busy.value = false
  if (outcome.kind === 'done') emit('chosen')
}

function choose(index: number) {
  if (!isBegun.value) return
  props.bench.look(index)
  emit('chosen')
}
</script>

<template>
  <div class="before">
    <div class="orders" role="radiogroup" aria-label="In which order">
      <button
        v-for="one in ORDERS"
        :key="one.value"
        type="button"
        role="radio"
        :aria-checked="order === one.value"
        class="order"
        :class="{ chosen: order === one.value }"
        @click="order = one.value"
      >
        <span class="called">{{ one.title }}</span>
        <span class="figure count">
          {{ counted(cutting[one.value].moves, 'setting') }},
          {{ counted(cutting[one.value].lifts, 'lift') }} of boards</span
        >
        <span class="text">
          {{ counted(cutting[one.value].swings, 'turn') }} of a saw,
          {{ counted(cutting[one.value].walks, 'walk') }} between tools</span
        >
        <span class="text">{{ one.text }}</span>
        <span v-if="one.value === 'by_stop' && cutting.by_stop.fewest" class="text proven"
          >cut along each board as the cards lay it, no order takes fewer set-ups</span
        >
      </button>
    </div>

    <p class="marks">{{ cutting.marks }}</p>
    <p v-for="one in cutting.held" :key="one.mark" class="told">
      <strong>{{ one.count }} {{ one.name }} ({{ one.mark }})</strong> wait in a tray of their own:
      they are cut roughly now, and to length when you have measured and typed it at the
      <RouterLink :to="`/projects/${cutting.project}`">desk</RouterLink>.
    </p>
    <p v-for="one in cutting.not_yet" :key="one" class="told">{{ one }}</p>

    <ol class="list" aria-label="Set-ups">
      <li v-for="(card, n) in cards" :key="card.key">
        <component
          :is="isBegun ? 'button' : 'div'"
          :type="isBegun ? 'button' : undefined"
          class="line"
          :class="{ done: card.isDone, here: isBegun && n === at }"
          @click="choose(n)"
        >
          <span class="figure n">{{ n + 1 }}</span>
          <span class="what"
            >{{ card.do === 'trim' ? 'Trim the first ends' : card.heading
            }}<template v-if="card.at"
              >&nbsp;<strong class="figure"><LengthText :length="card.at" /></strong></template
            >, {{ card.stands }}</span
          >
          <span class="tells">{{ card.tells }}</span>
          <span class="from">{{ counted(card.rows.length, 'board') }}</span>
        </component>
      </li>
    </ol>

    <div class="acts">
      <v-btn
        v-if="!isBegun"
        color="primary"
        variant="flat"
        height="56"
        class="start"
        :loading="busy"
        @click="start"
        >Start cutting</v-btn
      >
      <v-btn height="48" @click="printing = true">On paper</v-btn>
      <v-btn height="48" :to="{ name: 'tools' }">Tools</v-btn>
    </div>
    <OnPaper v-if="printing" v-model="printing" :project="cutting.project" :order="order" />
  </div>
</template>

<style scoped>
.before {
  max-width: 920px;
  margin: 0 auto;
  padding: 20px 24px 40px;
}

.orders {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}

.order {
  display: flex;
  flex-direction: column;
  gap: 2px;
  padding: 12px 16px;
  text-align: left;
  border: 1px solid rgb(var(--v-theme-rule));
  border-left: 6px solid rgb(var(--v-theme-rule));
}

.order.chosen {
  border-left-color: rgb(var(--v-theme-tape));
  background: rgb(var(--v-theme-selected));
}

.count {
  font-size: var(--text-lead);
}

.text {
  font-size: var(--text-small);
  color: rgb(var(--v-theme-quiet));
}

.proven {
  color: rgb(var(--v-theme-proven));
}

.marks,
.told {
  margin: 14px 0 0;
  line-height: 1.4;
}

.told {
  padding-left: 12px;
  border-left: 5px solid rgb(var(--v-theme-tape));
}

.told a {
  color: rgb(var(--v-theme-primary));
}

.list {
  list-style: none;
  margin: 18px 0 0;
  padding: 0;
  border-top: var(--heavy) solid rgb(var(--v-theme-on-surface));
}

.line {
  display: grid;
  grid-template-columns: 44px minmax(0, 1.2fr) minmax(0, 1fr) 80px;
  gap: 10px;
  align-items: baseline;
  width: 100%;
  min-height: 48px;
  padding: 10px 6px;
  text-align: left;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}

.line .n {
  font-size: var(--text-lead);
}

.line .what strong {
  font-size: var(--text-lead);
}

.from {
  text-align: right;
}

.tells,
.from {
  color: rgb(var(--v-theme-quiet));
}

.line.done {
  color: rgb(var(--v-theme-quiet));
  text-decoration: line-through;
}

.line.here {
  box-shadow: inset 5px 0 rgb(var(--v-theme-tape));
}

.acts {
  position: sticky;
  bottom: var(--foot);
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  padding: 16px 0;
  background: rgb(var(--v-theme-surface));
}

.start {
  font-size: var(--text-lead);
}

@media (max-width: 820px) {
  .before {
    padding: 14px 14px 20px;
  }

  .orders {
    grid-template-columns: 1fr;
  }

  .line {
    grid-template-columns: 32px minmax(0, 1fr) auto;
  }

  .tells {
    grid-column: 2 / -1;
    grid-row: 2;
  }
}
</style>
