<script setup lang="ts">
import type { Project } from '../api'
import { keysOpen } from '../shared'

/** Where a project is bought and how it is sawn, and the way to change that. */
defineProps<{ project: Project }>()
defineEmits<{ settings: []; importing: [] }>()
</script>

<template>
  <div class="strip">
    <button type="button" class="settings" @click="$emit('settings')">
      <span class="called">{{ project.yard?.name ?? 'No yard chosen' }}</span>
      <span class="quiet">
        kerf {{ project.kerf.shown.text }}, trim {{ project.trim_start.shown.text }} and
        {{ project.trim_end.shown.text }}, build {{ project.copies }}
      </span>
    </button>
    <v-btn size="small" @click="$emit('importing')">Import</v-btn>
    <v-btn size="small" aria-label="Keys" @click="keysOpen = true">?</v-btn>
  </div>
</template>

<style scoped>
.strip {
  display: flex;
  gap: 6px;
  align-items: center;
  padding: 6px 12px 6px 8px;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
}

.settings {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  text-align: left;
  padding: 3px 8px;
  font-size: var(--text-small);
  cursor: pointer;
}

.settings:hover {
  background: rgb(var(--v-theme-selected));
}

.settings .called {
  font-size: var(--text-plain);
}

.settings .quiet {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
