<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, keys, type PriceLine } from '../api'
import { day, dayAndTime, PlainDialog, RuledTable } from '../shared'

const COLUMNS = [
  { name: 'price', title: 'price', right: true, look: 'figure' },
  { name: 'per', title: 'per' },
  { name: 'dated', title: 'dated' },
  { name: 'entered', title: 'entered', look: 'quiet' },
]
const props = defineProps<{ yard: string }>()
const line = defineModel<PriceLine>()

const { data: points } = useQuery({
  queryKey: computed(() => keys.pricesOf(line.value?.id, line.value?.price)),
  enabled: computed(() => Boolean(line.value)),
  queryFn: async () => {
    const { data } = await api.GET('/api/yards/{yard_id}/lines/{line_id}/prices', {
      params: { path: { yard_id: props.yard, line_id: line.value?.id ?? '' } },
    })
    return data ?? []
  },
})
</script>

<template>
  <PlainDialog
    :model-value="Boolean(line)"
    :title="`Price history of ${line?.stock} ${line?.named_length}`"
    :width="460"
    @update:model-value="line = undefined"
  >
    <RuledTable
      called="Price by price"
      :columns="COLUMNS"
      :rows="points ?? []"
      :key-of="(point) => point.entered"
    >
      <template #price="{ row }">{{ row.price || 'none' }}</template>
      <template #per="{ row }">{{ row.per || 'each' }}</template>
      <template #dated="{ row }">{{ row.date ? day(row.date) : 'no date' }}</template>
      <template #entered="{ row }">{{ dayAndTime(row.entered) }}</template>
    </RuledTable>

    <template #acts><v-btn @click="line = undefined">Close</v-btn></template>
  </PlainDialog>
</template>
