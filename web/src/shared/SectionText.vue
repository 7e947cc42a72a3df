<script setup lang="ts">
import { defineAsyncComponent, ref } from 'vue'
import type { Section } from '../api'
import LengthText from './LengthText.vue'

const SourceNote = defineAsyncComponent(() => import('./SourceNote.vue'))
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
    <SourceNote v-if="source && asked" :source="source" />
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
