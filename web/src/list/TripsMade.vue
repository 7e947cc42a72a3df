<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { api, keys } from '../api'
import { day } from '../shared'

/** The trips of a project, with the way to each receipt. */
const props = defineProps<{ project: string }>()
const { data: trips } = useQuery({
  queryKey: keys.trips(props.project),
  queryFn: async () => {
    const { data } = await api.GET('/api/projects/{project_id}/trips', {
      params: { path: { project_id: props.project } },
    })
    return data ?? []
  },
})
</script>

<template>
  <template v-if="trips?.length">
    <h2>Trips</h2>
    <ul class="trips">
      <li v-for="trip in trips" :key="trip.id">
        <RouterLink v-if="trip.finished" :to="`/trips/${trip.id}/receipt`"
          >{{ trip.yard }}, {{ day(trip.finished) }}</RouterLink
        >
        <RouterLink v-else :to="`/projects/${project}/yard`"
          >{{ trip.yard }}, under way since {{ day(trip.begun) }}</RouterLink
        >
        <span class="figure">{{ trip.total }}</span>
        <span class="quiet">{{ trip.finished ? 'paid' : 'with tags so far' }}</span>
      </li>
    </ul>
  </template>
</template>

<style scoped>
.trips {
  list-style: none;
  margin: 0;
  padding: 0;
}

.trips li {
  display: flex;
  gap: 14px;
  padding: 6px 0;
}
</style>
