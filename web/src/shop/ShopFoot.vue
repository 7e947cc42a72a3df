<script setup lang="ts">
import { computed } from 'vue'
import type { AtTheBench } from './useCutting'

/** The two large targets, done and not done, and the small ones over them. */
const props = defineProps<{ bench: AtTheBench }>()
defineEmits<{ cut: []; wrong: [] }>()
const { cards, at, card, row, now } = props.bench

/** What the large press does. */
const act = computed(() => {
  const one = row.value
  if (!one) return ''
  return one.left.length > 1
    ? `Cut all ${one.left.length}, board ${one.board}`
    : `Cut, board ${one.board}`
})
const waitsOnly = computed(() => Boolean(card.value && !card.value.isDone && !row.value))

async function pressAll() {
  const rows = (card.value?.rows ?? []).filter((one) => one.left.length && !one.waits)
  await props.bench.done(rows)
}
</script>

<template>
  <footer class="foot">
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
      <button v-if="row" type="button" class="done" @click="$emit('cut')">{{ act }}</button>
      <button v-else type="button" class="done" :disabled="waitsOnly" @click="bench.look(at + 1)">
        {{ waitsOnly ? 'Waits for the new plan' : 'Done here: next set-up' }}
      </button>
      <button type="button" class="miscut" @click="$emit('wrong')">Miscut</button>
    </div>
  </footer>
</template>

<style scoped>
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
  font-size: var(--far-act);
  font-weight: 680;
  color: rgb(var(--v-theme-on-done));
  background: rgb(var(--v-theme-done));
}

.done:disabled {
  background: rgb(var(--v-theme-quiet));
}

.miscut {
  font-size: var(--far-lead);
  font-weight: 650;
  color: rgb(var(--v-theme-error));
  border-top: 3px solid rgb(var(--v-theme-error));
}

@media (max-width: 820px) {
  .small :deep(.v-btn) {
    min-width: 0;
    padding: 0 8px;
  }

  .two {
    grid-template-columns: 1fr 116px;
  }

  .done {
    min-height: 76px;
    font-size: var(--far);
  }

  .miscut {
    font-size: var(--far);
  }
}

@media (max-height: 700px) and (min-width: 821px) {
  .done {
    min-height: 84px;
  }
}
</style>
