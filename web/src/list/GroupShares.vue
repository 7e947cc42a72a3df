<script setup lang="ts">
import type { Plan } from '../api'
import { RuledTable } from '../shared'

const COLUMNS = [
  { name: 'name', title: 'group', look: 'called' },
  { name: 'pieces', title: 'pieces', right: true, look: 'figure' },
  { name: 'cost', title: 'its share of the wood', right: true, look: 'figure' },
]

/** The wood by groups of parts. */
defineProps<{ groups: Plan['shopping']['groups'] }>()
</script>

<template>
  <template v-if="groups.length > 1">
    <h2>By group of parts</h2>
    <RuledTable
      class="shares"
      called="By group of parts"
      :columns="COLUMNS"
      :rows="groups"
      :key-of="(group) => group.name"
    >
      <template #name="{ row }">{{ row.name || 'without a group' }}</template>
    </RuledTable>
    <p class="quiet small">
      A board’s price, waste and all, falls to its parts by their volume; spare boards and tax are
      left aside.
    </p>
  </template>
</template>

<style scoped>
.shares {
  max-width: 520px;
}

.small {
  margin-top: 8px;
  font-size: var(--text-small);
}
</style>
