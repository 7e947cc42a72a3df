<script setup lang="ts">
import { computed } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { api, keys, type Plan } from '../api'
import { RuledTable } from '../shared'

/** What a project has cost, as far as it is cut. */
const props = defineProps<{ project: string; plan: Plan }>()

const COLUMNS = [
  { name: 'what', title: 'what', look: 'called' },
  { name: 'paid', title: 'cost', right: true, look: 'figure' },
]

const isCut = computed(() => props.plan.stage === 'cut' || props.plan.already_cut.length > 0)
const { data: spent } = useQuery({
  queryKey: computed(() => keys.spent(props.project, props.plan.id)),
  enabled: isCut,
  queryFn: async () => {
    const { data } = await api.GET('/api/projects/{project_id}/spent', {
      params: { path: { project_id: props.project } },
    })
    return data ?? null
  },
})
</script>

<template>
  <template v-if="isCut && spent?.told">
    <h2>What it has cost</h2>
    <RuledTable
      class="spent"
      called="What it has cost"
      :columns="COLUMNS"
      :rows="spent.lines"
      :key-of="(_, at) => at"
    >
      <template #foot>
        <tr>
          <th scope="row">in all</th>
          <td class="to-right figure">{{ spent.total }}</td>
        </tr>
      </template>
    </RuledTable>
    <p class="quiet">{{ spent.told }}</p>
  </template>
</template>

<style scoped>
.spent {
  max-width: 520px;
}
</style>
