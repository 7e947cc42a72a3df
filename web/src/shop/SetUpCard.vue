<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { WoodPatterns } from '../drawing'
import { CautionList, LengthText } from '../shared'
import BoardOnTheSaw from './BoardOnTheSaw.vue'
import type { CardNow, RowNow } from './useCutting'

/** One set-up: the figure that matters, how the blade stands, the piece on the saw, its boards. */
const props = defineProps<{ card: CardNow; row: RowNow | undefined }>()

const MOST = 6
const shown = computed(() => props.row ?? props.card.rows[0])
/** The boards that are next, not all of a long list. */
const showsAll = ref(false)
watch(
  () => props.card.key,
  () => (showsAll.value = false),
)
const first = computed(() => {
  const at = props.row ? props.card.rows.indexOf(props.row) : 0
  return showsAll.value || props.card.rows.length <= MOST ? 0 : Math.max(0, at - 1)
})
const shownRows = computed(() =>
  showsAll.value ? props.card.rows : props.card.rows.slice(first.value, first.value + MOST),
)
const more = computed(() => props.card.rows.length - first.value - shownRows.value.length)
</script>

<template>
  <div class="set-up">
    <WoodPatterns />
    <section class="figure-side" aria-label="This set-up">
      <p class="heading">{{ card.heading }}</p>
      <p v-if="card.at" class="giant figure">
        <span v-if="!card.at.exact" class="about">about</span
        ><LengthText :length="{ ...card.at, exact: true }" />
      </p>
      <p v-else class="giant figure words">{{ card.do === 'trim' ? 'Trim' : 'Line' }}</p>
      <p class="stands">
        {{ card.stands }}<template v-if="card.tool">, {{ card.tool }}</template>
      </p>
      <p class="tells">{{ card.tells }}</p>
      <p v-if="card.way" class="way">{{ card.way }}</p>
      <BoardOnTheSaw v-if="shown" :card="card" :row="shown" />
    </section>
    <section class="boards" aria-label="From these boards">
      <h2>From these boards</h2>
      <ul>
        <li v-if="first" class="done">
          <span class="figure number">{{ first }}</span>
          <span class="long">done already</span>
        </li>
        <li
          v-for="one in shownRows"
          :key="one.board"
          :class="{ done: !one.left.length, next: one === row, waits: one.waits }"
        >
          <span class="figure number">{{ one.board }}</span>
          <span class="long">{{ one.called }}</span>
          <span class="off"
            >{{ one.off || `${one.cuts.length} cut${one.cuts.length > 1 ? 's' : ''}` }}
            <span v-if="!one.left.length" class="said-only">, done</span>
            <span v-if="one.waits" class="wait">waits for the new plan</span></span
          >
        </li>
        <li v-if="more" class="more">
          <button type="button" @click="showsAll = true">and {{ more }} more</button>
        </li>
      </ul>
      <CautionList :cautions="card.cautions" />
      <p v-for="one in card.notes" :key="one" class="note">{{ one }}</p>
    </section>
  </div>
</template>

<style scoped>
.set-up {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  min-height: 100%;
}

.figure-side {
  min-width: 0;
  padding: 20px 34px 16px;
}

p {
  margin: 0;
}

.heading {
  font-size: var(--far);
  color: rgb(var(--v-theme-quiet));
}

.giant {
  font-size: var(--far-giant);
  line-height: 0.98;
  letter-spacing: -0.02em;
}

.about {
  margin-right: 8px;
  font-size: var(--far);
  font-weight: 500;
  letter-spacing: 0;
  color: rgb(var(--v-theme-quiet));
}

.giant.words {
  font-size: var(--far-words);
}

.stands {
  margin-top: 10px;
  font-size: var(--far-lead);
  line-height: 1.2;
  font-stretch: var(--condensed);
  font-weight: 620;
}

.tells,
.way {
  font-size: var(--far);
  line-height: 1.3;
}

.tells {
  margin-top: 4px;
  color: rgb(var(--v-theme-quiet));
}

.way {
  margin: 8px 0 4px;
  padding: 6px 12px;
  border-left: 6px solid rgb(var(--v-theme-primary));
  background: rgb(var(--v-theme-selected));
}

.boards {
  margin: 22px 16px 22px 0;
  padding-left: 22px;
  border-left: 2px solid rgb(var(--v-theme-on-surface));
}

.boards h2 {
  margin: 0 0 4px;
  font-size: var(--text-large);
  font-weight: 650;
}

ul {
  list-style: none;
  margin: 0 0 16px;
  padding: 0;
}

.boards li {
  display: grid;
  grid-template-columns: 46px 1fr auto;
  gap: 6px;
  align-items: baseline;
  min-height: 48px;
  padding: 9px 0;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
  font-size: var(--far);
  font-stretch: var(--condensed);
}

.number {
  font-size: var(--far-lead);
}

.off {
  text-align: right;
  font-weight: 650;
}

.done {
  color: rgb(var(--v-theme-quiet));
  text-decoration: line-through;
}

.boards .next {
  margin-left: -14px;
  padding-left: 14px;
  box-shadow: inset 6px 0 rgb(var(--v-theme-tape));
}

.more button {
  grid-column: 1 / -1;
  min-height: 40px;
  text-align: left;
  color: rgb(var(--v-theme-primary));
}

.wait {
  display: block;
  font-size: var(--text-small);
  font-weight: 500;
}

.set-up :deep(.caution) {
  margin-bottom: 8px;
  padding: 10px 14px;
  border-left: 6px solid rgb(var(--v-theme-tape));
  background: rgba(var(--v-theme-tape), 0.16);
  font-size: var(--text-body);
  line-height: 1.35;
}

.note {
  margin-bottom: 6px;
  font-size: var(--text-plain);
  line-height: 1.35;
  color: rgb(var(--v-theme-quiet));
}

@media (max-width: 820px) {
  .set-up {
    display: block;
  }

  .figure-side {
    padding: 12px 16px 10px;
  }

  .boards {
    margin: 6px 16px 16px;
    padding: 12px 0 0;
    border-left: 0;
    border-top: 2px solid rgb(var(--v-theme-on-surface));
  }

  .stands {
    font-size: var(--far);
  }
}
</style>
