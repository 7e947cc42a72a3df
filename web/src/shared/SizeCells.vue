<script setup lang="ts">
import type { Section } from '../api'
import EditableCell from './EditableCell.vue'
import LengthText from './LengthText.vue'

/** Thickness and width of a section, each to be typed over; of what is round, its diameter. */
type Bound = InstanceType<typeof EditableCell>['$props']
defineProps<{ section: Section; thickness: Bound; width: Bound }>()
</script>

<template>
  <div class="size">
    <template v-if="section.round">⌀</template>
    <EditableCell v-bind="thickness" takes-length class="narrow">
      <LengthText :length="section.thickness" bare />
    </EditableCell>
    <template v-if="!section.round">
      ×
      <EditableCell v-bind="width" takes-length class="narrow">
        <LengthText :length="section.width" bare />
      </EditableCell>
    </template>
    <slot />
  </div>
</template>

<style scoped>
.size {
  display: flex;
  align-items: center;
  gap: 3px;
  white-space: nowrap;
}

.narrow {
  width: 50px;
}
</style>
