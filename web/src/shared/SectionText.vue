<script setup lang="ts">
import type { Section } from '../api/client'
import LengthText from './LengthText.vue'

defineProps<{ section: Section; source?: string }>()
</script>

<template>
  <span :title="source ? `real size: ${source}` : undefined" class="section">
    <LengthText :length="section.thickness" bare /> × <LengthText :length="section.width" bare />
  </span>
</template>

<style scoped>
.section {
  white-space: nowrap;
}
</style>
