<script setup lang="ts">
import type { TableColumn } from '../api'

const props = defineProps<{ columns: TableColumn[]; choices: string[] }>()
const emit = defineEmits<{ choose: [names: string[]] }>()

const NOT_USED = 'not used'
const SHOWN: Record<string, string> = { quantity: 'count', name: 'part' }
const items = [
  { title: NOT_USED, value: '' },
  ...props.choices.map((name) => ({
    title: SHOWN[name] ?? name.replace('_', ' '),
    value: name,
  })),
]

function choose(at: number, name: string) {
  emit(
    'choose',
    props.columns.map((column, index) => (index === at ? name : column.name)),
  )
}
</script>

<template>
  <fieldset class="columns">
    <legend class="quiet">What each column is</legend>
    <div v-for="(column, at) in columns" :key="at" class="column">
      <span class="found">
        <strong v-if="column.heading">{{ column.heading }}</strong>
        <span class="quiet">{{ column.sample || 'empty' }}</span>
      </span>
      <v-select
        :model-value="column.name"
        :items="items"
        :aria-label="`Column ${at + 1}${column.heading ? `, ${column.heading}` : ''}`"
        :class="{ unused: !column.name }"
        @update:model-value="(name: string) => choose(at, name)"
      />
    </div>
  </fieldset>
</template>

<style scoped>
.columns {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  border: 0;
  padding: 0;
  margin: 10px 0 14px;
}

.columns legend {
  font-size: var(--text-small);
  padding: 0;
  margin-bottom: 4px;
}

.column {
  width: 132px;
  min-width: 0;
}

.found {
  display: flex;
  gap: 6px;
  font-size: var(--text-small);
  white-space: nowrap;
  overflow: hidden;
}

.found > * {
  overflow: hidden;
  text-overflow: ellipsis;
}

.unused {
  border-left: 3px solid rgb(var(--v-theme-saw));
}
</style>
