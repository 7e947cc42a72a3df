<script setup lang="ts">
import { computed } from 'vue'
import type { AtTheBench } from './useCutting'

/** Where one is in the shop: the set-ups as steps, and how far it is. */
const props = defineProps<{
  bench: AtTheBench
  project: string
  isBegun: boolean
  isOver: boolean
}>()
/** Whether all set-ups are shown. */
const overview = defineModel<boolean>({ required: true })
const { cutting, cards, at, isAllCut, unsent } = props.bench
const minutes = computed(() => props.bench.minutes.value)
</script>

<template>
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
        }}<span class="minutes">, about {{ minutes }} min left</span></template
      ><template v-if="unsent.length">, {{ unsent.length }} not sent</template>
    </span>
    <span v-else-if="cutting && !isOver" class="so-far">{{ cards.length }} set-ups</span>
  </header>
</template>

<style scoped src="../shared/place-head.css"></style>

<style scoped>
.head {
  gap: 16px;
  min-height: 60px;
  padding: 4px 16px 4px 0;
}

.name {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: var(--text-large);
}

.progress {
  flex: 1 1 0;
  display: flex;
  gap: 3px;
  min-width: 30px;
  overflow: hidden;
  max-width: 340px;
  height: 48px;
  align-items: center;
  padding: 0;
}

.step {
  flex: 1;
  min-width: 1px;
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

@media (max-width: 820px) {
  .head {
    gap: 8px;
    padding-right: 12px;
  }

  .progress {
    gap: 1px;
  }

  .minutes {
    display: none;
  }

  .so-far {
    flex: none;
  }

  .name {
    flex: 0 1 auto;
  }
}
</style>
