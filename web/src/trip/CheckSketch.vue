<script setup lang="ts">
defineProps<{ name: string }>()
</script>

<template>
  <svg viewBox="0 0 72 44" width="72" height="44" aria-hidden="true">
    <g class="board">
      <path v-if="name === 'crook'" d="M4 20 Q36 4 68 20 V32 Q36 16 4 32 Z" />
      <path v-else-if="name === 'bow'" d="M4 27 Q36 11 68 27 V31 Q36 15 4 31 Z" />
      <path v-else-if="name === 'cup'" d="M10 14 Q36 34 62 14 L65 21 Q36 42 7 21 Z" />
      <path v-else-if="name === 'twist'" d="M5 13 L66 20 L68 25 L68 31 L5 31 L3 20 Z" />
      <rect v-else x="4" y="12" width="64" height="20" />
    </g>
    <g class="mark">
      <path v-if="name === 'crook'" d="M4 20 H68" stroke-dasharray="3 3" />
      <path v-else-if="name === 'bow'" d="M4 34 H68" stroke-dasharray="3 3" />
      <path v-else-if="name === 'cup'" d="M10 14 H62" stroke-dasharray="3 3" />
      <path v-else-if="name === 'twist'" d="M3 20 L68 31 M66 20 L5 31" stroke-dasharray="3 3" />
      <path v-else-if="name === 'split'" d="M68 21 L52 22 L44 20 M68 25 L58 24" />
      <g v-else-if="name === 'knot'">
        <ellipse cx="26" cy="22" rx="6" ry="4" />
        <ellipse cx="26" cy="22" rx="2.4" ry="1.4" />
        <path d="M50 12 L54 18 L49 22" />
      </g>
      <path v-else-if="name === 'size'" d="M4 38 H68 M4 35 V41 M68 35 V41 M0 12 V32" />
    </g>
  </svg>
</template>

<style scoped>
svg {
  flex: none;
}

.board {
  fill: rgb(var(--v-theme-plain));
  stroke: rgb(var(--v-theme-on-background));
  stroke-width: 1.2;
}

.mark {
  fill: none;
  stroke: rgb(var(--v-theme-saw));
  stroke-width: 1.8;
}
</style>
