<script setup lang="ts">
import type { Days, Project } from '../api'
import StepCard from './StepCard.vue'
import type { ProjectDays } from './useDays'

/** The steps as they come, one under the other; what is pressed opens. */
defineProps<{ days: Days; held: ProjectDays; project: Project }>()
const chosen = defineModel<string>({ required: true })
const SAID: Record<string, string> = {
  done: 'done',
  begun: 'under way',
  dry: 'done, its wait goes on',
  next: 'next',
}
</script>

<template>
  <ol class="steps">
    <li v-for="step in days.steps" :key="step.key" :class="step.state">
      <button
        type="button"
        class="row"
        :aria-expanded="step.key === chosen"
        @click="chosen = step.key === chosen ? '' : step.key"
      >
        <span class="when figure">{{ step.when }}</span>
        <span class="what">
          <span class="called">{{ step.name }}</span>
          <span v-if="step.again" class="fine again">{{ step.again }}</span>
          <span v-else class="fine">
            {{ SAID[step.state] ?? step.slack
            }}<template v-if="SAID[step.state] || step.slack">, </template>{{ step.work
            }}<template v-if="step.wait">, then {{ step.wait }} of waiting</template>
          </span>
        </span>
      </button>
      <StepCard
        v-if="step.key === chosen"
        :key="step.key"
        :step="step"
        :held="held"
        :project="project"
      />
    </li>
  </ol>
</template>

<style scoped>
.steps {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  border-bottom: 1px solid rgb(var(--v-theme-rule));
  border-left: 4px solid transparent;
}

li.next {
  border-left-color: rgb(var(--v-theme-tape));
}

li.done,
li.dry {
  border-left-color: rgb(var(--v-theme-done));
}

.row {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: 10px;
  width: 100%;
  min-height: 58px;
  padding: 8px 12px 8px 10px;
  text-align: left;
  line-height: 1.3;
}

.what {
  display: grid;
}

.fine {
  font-size: var(--text-small);
  color: rgb(var(--v-theme-quiet));
}

.again {
  color: rgb(var(--v-theme-error));
}
</style>
