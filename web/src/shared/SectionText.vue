<script setup lang="ts">
import { ref } from 'vue'
import type { Section } from '../api'
import LengthText from './LengthText.vue'

defineProps<{ section: Section; source?: string }>()
const asked = ref(false)
</script>

<template>
  <span
    class="section"
    :class="{ sourced: source }"
    @pointerenter="asked = true"
    @pointerleave="asked = false"
    @click="asked = true"
  >
    <template v-if="section.round">⌀ <LengthText :length="section.width" bare /></template>
    <template v-else
      ><LengthText :length="section.thickness" bare /> × <LengthText :length="section.width" bare
    /></template>
    <v-tooltip
      v-if="source && asked"
      :model-value="true"
      :open-on-hover="false"
      activator="parent"
      location="top"
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
