<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, type PriceLine } from '../api/client'
import { keys } from '../api/keys'
import { day, dayAndTime } from '../shared/dates'

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
  <v-dialog
    :model-value="Boolean(line)"
    max-width="460"
    aria-label="Price history"
    @update:model-value="line = undefined"
  >
    <v-card :title="`${line?.stock} ${line?.named_length}, price by price`">
      <v-card-text>
        <table class="ruled">
          <thead>
            <tr>
              <th class="to-right">price</th>
              <th>per</th>
              <th>dated</th>
              <th>entered</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="point in points" :key="point.entered">
              <td class="to-right figure">{{ point.price || 'none' }}</td>
              <td>{{ point.per || 'each' }}</td>
              <td>{{ point.date ? day(point.date) : 'no date' }}</td>
              <td class="quiet">{{ dayAndTime(point.entered) }}</td>
            </tr>
          </tbody>
        </table>
      </v-card-text>
      <v-card-actions><v-btn @click="line = undefined">Close</v-btn></v-card-actions>
    </v-card>
  </v-dialog>
</template>
