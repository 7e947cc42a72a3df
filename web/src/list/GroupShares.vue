<script setup lang="ts">
import type { Plan } from '../api/client'

/** The wood by groups of parts. */
defineProps<{ groups: Plan['shopping']['groups'] }>()
</script>

<template>
  <template v-if="groups.length > 1">
    <h2>By group of parts</h2>
    <table class="ruled shares" aria-label="By group of parts">
      <thead>
        <tr>
          <th>group</th>
          <th class="to-right">pieces</th>
          <th class="to-right">its share of the wood</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="group in groups" :key="group.name">
          <td class="called">{{ group.name || 'without a group' }}</td>
          <td class="to-right figure">{{ group.pieces }}</td>
          <td class="to-right figure">{{ group.cost }}</td>
        </tr>
      </tbody>
    </table>
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
