<script setup lang="ts">
import type { Trip } from '../api'
import CheckSketch from './CheckSketch.vue'

defineProps<{ trip: Trip; checked: Set<string> }>()
defineEmits<{ check: [key: string] }>()
</script>

<template>
  <section aria-label="What to look at">
    <p class="lead">Before a board goes into the cart:</p>
    <ul class="checks">
      <li v-for="check in trip.checks" :key="check.key">
        <button
          type="button"
          role="checkbox"
          :aria-checked="checked.has(check.key)"
          :class="{ done: checked.has(check.key) }"
          @click="$emit('check', check.key)"
        >
          <CheckSketch :name="check.key" />
          <span class="text">
            <span class="called">{{ check.name }}</span>
            <span class="quiet how">{{ check.how }}</span>
          </span>
          <span class="box" aria-hidden="true">{{ checked.has(check.key) ? '✓' : '' }}</span>
        </button>
      </li>
    </ul>
    <p class="quiet note">
      Common practice, no source. Tie the load down, flag what sticks out, and carry long boards in
      twos. Treated wood: wear gloves, wash your hands. This plans cuts and cost; it does not check
      strength: local codes and a licensed professional decide.
    </p>
  </section>
</template>

<style scoped>
.lead {
  margin: 14px 18px 6px;
}

.checks {
  list-style: none;
  margin: 0;
  padding: 0;
}

.checks button {
  display: flex;
  align-items: center;
  gap: 14px;
  width: 100%;
  min-height: 68px;
  padding: 8px 18px;
  text-align: left;
  border-top: 1px solid rgb(var(--v-theme-rule));
}

.text {
  flex: 1;
  display: flex;
  flex-direction: column;
}

.how {
  font-size: var(--text-small);
  line-height: 1.3;
}

.box {
  flex: none;
  width: 30px;
  height: 30px;
  border: 2px solid rgb(var(--v-theme-on-background));
  border-radius: var(--corner);
  font-size: var(--text-lead);
  line-height: 26px;
  text-align: center;
}

.done {
  background: color-mix(in srgb, rgb(var(--v-theme-proven)) 9%, transparent);
}

.done .box {
  background: rgb(var(--v-theme-proven));
  border-color: rgb(var(--v-theme-proven));
  color: rgb(var(--v-theme-surface));
}

.note {
  margin: 0;
  padding: 14px 18px 24px;
  border-top: 1px solid rgb(var(--v-theme-rule));
  font-size: var(--text-small);
}
</style>
