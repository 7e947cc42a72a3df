<script setup lang="ts">
/** Says whose a size is, over what it stands beside. */
defineProps<{ source: string }>()
</script>

<template>
  <v-tooltip :model-value="true" :open-on-hover="false" activator="parent" location="top"
    >Real size: {{ source }}. A measured board goes before the yard’s size, the yard’s before the
    standard one.</v-tooltip
  >
</template>
