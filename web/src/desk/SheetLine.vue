<script lang="ts">
import type { Part } from '../api'

/** What is known of a part beside others: why it is not planned yet, how many are cut, and the mark
 * of its mirror image. */
export interface Beside {
  later: string
  cut: number
  pair: string
}

/** A line of the sheet: the name of a group, or a part. */
export type Line = { key: string; group: string } | { key: string; part: Part }
</script>

<script setup lang="ts">
import PartRow from './PartRow.vue'
import type { Lighting } from '../drawing'
import type { ProjectOnDesk } from '../project'

defineProps<{
  line: Line
  beside: Beside
  desk: ProjectOnDesk
  lighting: Lighting
  drafts: Record<string, string>
}>()
defineEmits<{ keep: [field: string, text: string]; drop: [field: string] }>()
</script>

<template>
  <div v-if="'group' in line" role="row" class="group">
    <span role="cell">{{ line.group }}</span>
  </div>
  <PartRow
    v-else
    :part="line.part"
    :beside="beside"
    :desk="desk"
    :lighting="lighting"
    :drafts="drafts"
    @keep="(field, text) => $emit('keep', field, text)"
    @drop="(field) => $emit('drop', field)"
  />
</template>

<style scoped>
.group {
  padding: 8px 12px 2px;
  font-size: var(--text-small);
  font-weight: 600;
  color: rgb(var(--v-theme-quiet));
}
</style>
