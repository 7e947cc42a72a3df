<script setup lang="ts">
import type { Section } from '../api/client'
import LengthText from './LengthText.vue'

defineProps<{ section: Section; source?: string }>()
</script>

<template>
  <span class="section" :class="{ sourced: source }">
    <template v-if="section.round">⌀ <LengthText :length="section.width" bare /></template>
    <template v-else
      ><LengthText :length="section.thickness" bare /> × <LengthText :length="section.width" bare
    /></template>
    <v-tooltip v-if="source" activator="parent" open-on-click location="top"
      >Real size: {{ source }}. A measured board goes before the yard’s size, the yard’s before the
      standard one.</v-tooltip
    >
  </span>
</template>

<style scoped>
.section {
  white-space: nowrap;
}

.sourced {
  cursor: help;
}
</style>
