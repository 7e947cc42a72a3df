<script setup lang="ts">
import { computed } from 'vue'

const props = defineProps<{ found: number; size: number; what: string }>()
const page = defineModel<number>({ required: true })
const pages = computed(() => Math.max(1, Math.ceil(props.found / props.size)))
const first = computed(() => (page.value - 1) * props.size + 1)
const last = computed(() => Math.min(props.found, page.value * props.size))
</script>

<template>
  <nav v-if="pages > 1" class="turner" :aria-label="`Pages of ${what}`">
    <v-btn size="small" :disabled="page <= 1" @click="page -= 1">Before</v-btn>
    <span role="status">{{ what }} {{ first }} to {{ last }} of {{ found.toLocaleString() }}</span>
    <v-btn size="small" :disabled="page >= pages" @click="page += 1">Next</v-btn>
  </nav>
</template>

<style scoped>
.turner {
  display: flex;
  align-items: center;
  gap: 14px;
  margin-top: 10px;
  font-size: var(--text-small);
}
</style>
