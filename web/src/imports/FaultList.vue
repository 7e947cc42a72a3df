<script setup lang="ts">
import type { Problem } from '../api'

defineProps<{ problems: Problem[]; lead?: string }>()
</script>

<template>
  <div v-if="problems.length" role="alert" class="faults" tabindex="0">
    <p v-if="lead" class="lead">{{ lead }}</p>
    <ul>
      <li v-for="(problem, index) in problems" :key="index">
        <strong v-if="problem.place">{{ problem.place }}</strong> {{ problem.message }}
      </li>
    </ul>
  </div>
</template>

<style scoped>
.faults {
  border-left: 4px solid rgb(var(--v-theme-error));
  padding: 6px 0 6px 14px;
  margin: 12px 0;
  max-height: 320px;
  overflow-y: auto;
}

.lead {
  font-weight: 600;
}

ul {
  margin: 4px 0 0;
  padding: 0;
  list-style: none;
}

li {
  padding: 3px 0;
}

strong {
  font-weight: 650;
  margin-right: 6px;
}
</style>
