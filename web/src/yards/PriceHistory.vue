<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, type PriceLine } from '../api/client'

const props = defineProps<{ yard: string }>()
const line = defineModel<PriceLine>()

const { data: points } = useQuery({
  queryKey: computed(() => ['prices', line.value?.id, line.value?.price]),
  enabled: computed(() => Boolean(line.value)),
  queryFn: async () => {
    const { data } = await api.GET('/api/yards/{yard_id}/lines/{line_id}/prices', {
      params: { path: { yard_id: props.yard, line_id: line.value?.id ?? '' } },
    })
    return data ?? []
  },
})
const day = new Intl.DateTimeFormat('en', { dateStyle: 'medium', timeStyle: 'short' })
</script>

<template>
  <v-dialog :model-value="Boolean(line)" max-width="460" @update:model-value="line = undefined">
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
              <td>{{ point.date || 'no date' }}</td>
              <td class="quiet">{{ day.format(new Date(point.entered)) }}</td>
            </tr>
          </tbody>
        </table>
      </v-card-text>
      <v-card-actions><v-btn @click="line = undefined">Close</v-btn></v-card-actions>
    </v-card>
  </v-dialog>
</template>
