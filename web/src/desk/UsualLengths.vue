<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, keys, type Project } from '../api'
import { LengthText } from '../shared'

/** The lengths that fasteners are usually sold in. */
const props = defineProps<{ project: Project }>()
const open = ref(false)
const { data: kinds } = useQuery({
  queryKey: computed(() => keys.usualLengths(props.project.id, props.project.version)),
  enabled: open,
  staleTime: Infinity,
  queryFn: async () => {
    const { data } = await api.GET('/api/projects/{project_id}/usual-lengths', {
      params: { path: { project_id: props.project.id } },
    })
    return data ?? []
  },
})
</script>

<template>
  <details class="small" @toggle="open = ($event.target as HTMLDetailsElement).open">
    <summary>Lengths that are usually sold</summary>
    <dl>
      <template v-for="one in kinds" :key="one.kind">
        <dt>{{ one.kind }}</dt>
        <dd class="quiet">
          <template v-for="(length, n) in one.lengths" :key="length.ticks"
            ><template v-if="n">, </template><LengthText :length="length"
          /></template>
        </dd>
      </template>
    </dl>
  </details>
</template>

<style scoped>
.small {
  font-size: var(--text-small);
}

summary {
  cursor: pointer;
}

dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 2px 14px;
  margin: 6px 0 0;
}

dd {
  margin: 0;
}
</style>
