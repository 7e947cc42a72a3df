<script setup lang="ts">
import { computed } from 'vue'
import type { Days } from '../api'

/** The days in figures, and what would do where they are missed. */
const props = defineProps<{ days: Days; working: boolean }>()
const figures = computed(() =>
  [
    {
      figure: props.days.work,
      name: props.days.work_done ? `of work, ${props.days.work_done} done` : 'of work',
    },
    { figure: props.days.waiting, name: 'of waiting' },
    { figure: props.days.ready, name: 'ready' },
    {
      figure: props.days.clamps,
      name: props.days.clamps.includes(' of ') ? 'clamps free' : 'clamps',
    },
  ].filter((one) => one.figure),
)
const wouldDo = computed(() => props.days.would_do.filter((one) => one.in_time))
const helps = computed(() => (wouldDo.value.length ? [] : props.days.would_do.slice(0, 2)))
</script>

<template>
  <footer class="foot" aria-label="Days in figures">
    <div v-for="one in figures" :key="one.name" class="one">
      <span class="figure">{{ one.figure }}</span>
      <span class="name">{{ one.name }}</span>
    </div>
    <div class="claim" role="status">
      <template v-if="days.late">
        <span class="statement called late">{{ days.late }} late</span>
        <span v-if="wouldDo.length" class="name">
          {{ wouldDo.map((one) => one.says).join(', or ') }} would do
        </span>
        <span v-else-if="helps.length" class="name">
          nothing alone would do; {{ helps.map((one) => `${one.says}: ${one.ready}`).join('; ') }}
        </span>
        <span v-else-if="!working" class="name">no single change would do</span>
      </template>
      <template v-else>
        <span class="statement called" :class="{ proven: days.exact }">{{
          days.exact ? 'Proven earliest' : working ? 'Working it out' : 'As early as was found'
        }}</span>
        <span class="name">{{ days.proof }}</span>
      </template>
    </div>
  </footer>
</template>

<style scoped src="../shared/foot-figures.css"></style>
<style scoped>
.foot {
  display: flex;
  flex-wrap: wrap;
  min-height: 78px;
  padding: 0 6px;
  background: rgb(var(--v-theme-surface));
  border-top: 3px solid rgb(var(--v-theme-on-background));
}

.claim {
  flex: 1 1 260px;
  align-items: flex-end;
}

.late {
  color: rgb(var(--v-theme-error));
}

.proven {
  color: rgb(var(--v-theme-proven));
}

@media (max-width: 820px) {
  .one {
    padding: 8px 12px 4px;
  }

  .one:not(:nth-child(3)) {
    display: none;
  }

  .one .figure {
    font-size: var(--text-lead);
  }

  .claim {
    align-items: flex-start;
    padding: 4px 12px 8px;
    text-align: left;
  }
}
</style>
