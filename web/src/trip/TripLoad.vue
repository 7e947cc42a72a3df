<script setup lang="ts">
import { computed } from 'vue'
import type { Trip } from '../api'

/** What is carried home and what it costs, always in view. */
const props = defineProps<{
  trip: Trip
  money: { total: string; inCart: string; about: boolean }
}>()
const totalTold = computed(() => {
  if (props.money.about) return 'as this phone knows; not planned yet'
  return props.trip.unpriced ? `without ${props.trip.unpriced} unpriced` : 'all of it, with tags'
})
</script>

<template>
  <footer class="foot" aria-label="The load">
    <div>
      <span class="figure">{{ money.total }}</span>
      <span class="quiet">{{ totalTold }}</span>
    </div>
    <div>
      <span class="figure">{{ money.inCart }}</span>
      <span class="quiet">in the cart</span>
    </div>
    <div>
      <span class="figure">{{ trip.weight }}</span>
      <span class="quiet">{{ trip.longest ? `longest ${trip.longest}` : 'load' }}</span>
    </div>
  </footer>
</template>

<style scoped>
.foot {
  position: sticky;
  bottom: var(--foot);
  z-index: 4;
  display: flex;
  gap: 8px;
  padding: 8px 18px 10px;
  background: rgb(var(--v-theme-surface));
  border-top: var(--heavy) solid rgb(var(--v-theme-on-background));
}

.foot div {
  flex: 1;
  display: flex;
  flex-direction: column;
  white-space: nowrap;
}

.foot .figure {
  font-size: var(--text-figure);
  line-height: 1.2;
  font-stretch: 78%;
}

.foot .quiet {
  font-size: var(--text-small);
}
</style>
