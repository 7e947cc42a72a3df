<script setup lang="ts">
import { ref } from 'vue'
import type { Days, ProjectPatch } from '../api'
import type { ProjectOnDesk } from '../project'

/** What would make it ready earlier, each worked out anew; what can be typed can be taken. */
const props = defineProps<{ days: Days; desk: ProjectOnDesk }>()
const busy = ref('')

async function take(says: string, typed: Record<string, string>) {
  busy.value = says
  await props.desk.changeSettings(typed as ProjectPatch)
  busy.value = ''
}
</script>

<template>
  <section class="would" aria-label="What would do">
    <h2>What would do</h2>
    <ul>
      <li v-for="one in days.would_do" :key="one.says">
        <span class="says">{{ one.says }}</span>
        <span class="ready" :class="{ 'in-time': one.in_time }"
          >ready {{ one.ready }}{{ one.in_time ? ', in time' : ', still late' }}</span
        >
        <v-btn
          v-if="Object.keys(one.typed).length"
          size="small"
          min-height="36"
          :loading="busy === one.says"
          @click="take(one.says, one.typed)"
          >Take it</v-btn
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.would {
  padding: 0 28px 18px;
}

h2 {
  margin: 0 0 4px;
  font-size: var(--text-large);
  font-stretch: var(--wide);
}

ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  min-height: 44px;
  max-width: 720px;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}

.says {
  flex: 1 1 260px;
}

.ready {
  color: rgb(var(--v-theme-quiet));
}

.in-time {
  color: rgb(var(--v-theme-proven));
}

@media (max-width: 820px) {
  .would {
    padding: 0 12px 14px;
  }
}
</style>
