<script setup lang="ts">
import { computed } from 'vue'
import type { Plan, Project } from '../api'

/** Parts that are not bought for, and why. */
const props = defineProps<{ project: Project; plan: Plan }>()
const parts = computed(() => new Map(props.project.parts.map((part) => [part.id, part])))
const left = computed(() =>
  props.plan.materials.flatMap((material) => [
    ...material.unplaced.map((one) => ({ ...one, stock: material.stock, planned: true })),
    ...material.later.map((one) => ({
      ...one,
      stock: material.stock,
      quantity: parts.value.get(one.part)?.pieces ?? 0,
      planned: false,
    })),
  ]),
)
</script>

<template>
  <template v-if="left.length">
    <h2>Not on this list</h2>
    <ul class="without">
      <li v-for="row in left" :key="row.part">
        <strong>{{ row.quantity }} × {{ parts.get(row.part)?.called }}</strong
        >, {{ row.stock }}: {{ row.reason }}{{ row.planned ? '' : ', not planned yet' }}
      </li>
    </ul>
  </template>
</template>

<style scoped>
.without {
  list-style: none;
  padding: 0 0 0 12px;
  border-left: 4px solid rgb(var(--v-theme-error));
}
</style>
