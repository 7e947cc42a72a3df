<script setup lang="ts">
import type { Plan } from '../api'

defineProps<{ cut: Plan['already_cut'] }>()
</script>

<template>
  <details v-for="(one, index) in cut" :key="index" class="already">
    <summary>
      <strong class="called">Cut already:</strong> {{ one.told }}. It stays yours; what is planned
      now is the rest.
    </summary>
    <ul>
      <li v-for="board in one.boards" :key="board.number">
        <strong class="figure">{{ board.number }}</strong> {{ board.stock }}, {{ board.length }}:
        <span class="figure">{{ board.pieces.join(' ') }}</span>
      </li>
    </ul>
  </details>
</template>

<style scoped>
.already {
  margin: 10px 0;
  padding: 6px 0 6px 12px;
  border-left: 4px solid rgb(var(--v-theme-proven));
  max-width: 62em;
}

.already ul {
  list-style: none;
  padding: 0;
  margin: 8px 0 0;
  columns: 2 20em;
  font-size: var(--text-small);
}
</style>
