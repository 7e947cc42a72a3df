<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { api, keys, type Plan, type Project } from '../api'
import { useYards } from '../project'
import { RuledTable } from '../shared'

const props = defineProps<{ project: Project; plan: Plan }>()
const { yards } = useYards()
const others = computed(() =>
  (yards.value ?? []).filter((yard) => yard.id !== props.project.yard?.id),
)
const other = ref<string>()
const asked = computed(() => Boolean(other.value && props.project.yard))

watch(
  () => props.project.yard?.id,
  () => (other.value = undefined),
)

const {
  data: compared,
  isFetching,
  error,
} = useQuery({
  queryKey: computed(() =>
    keys.compared(props.project.id, props.project.version, other.value ?? ''),
  ),
  enabled: asked,
  retry: false,
  queryFn: async () => {
    const answer = await api.GET('/api/projects/{project_id}/compare/{yard_id}', {
      params: { path: { project_id: props.project.id, yard_id: other.value! } },
    })
    if (!answer.data) throw new Error('the other yard could not be planned: try again')
    return answer.data
  },
})

const columns = computed(() => [
  { name: 'stock', title: 'stock', look: 'called' },
  { name: 'length', title: 'length', look: 'figure' },
  { name: 'here', title: compared.value?.here ?? '', right: true },
  { name: 'here-price', title: 'together', unseen: true, right: true, look: 'figure' },
  { name: 'there', title: compared.value?.there ?? '', right: true },
  { name: 'there-price', title: 'together', unseen: true, right: true, look: 'figure' },
])

type Side = NonNullable<typeof compared.value>['lines'][number]['here']

function countOf(side: Side): string {
  return side ? `${side.count} × ${side.price ?? 'no price'}` : 'none'
}

function priceOf(side: Side): string {
  return side ? (side.line_price ?? 'no price') : ''
}
</script>

<template>
  <div v-if="project.yard && others.length" class="compare">
    <h2>At another yard</h2>
    <v-select
      v-model="other"
      label="Compare with"
      class="pick"
      clearable
      :items="others.map((yard) => ({ title: yard.name, value: yard.id }))"
    />
  </div>
  <p v-if="asked && isFetching" class="quiet" role="status">Planning there …</p>
  <p v-else-if="asked && error" role="alert">{{ error.message }}</p>
  <template v-else-if="asked && compared">
    <p class="verdict" role="status">{{ compared.verdict }}</p>
    <RuledTable
      called="Two yards"
      :columns="columns"
      :rows="compared.lines"
      :key-of="(line) => `${line.stock} ${line.named_length} ${line.spare}`"
    >
      <template #stock="{ row }">{{ row.stock }}{{ row.spare ? ', spare' : '' }}</template>
      <template #length="{ row }">{{ row.named_length }}</template>
      <template #here="{ row }">{{ countOf(row.here) }}</template>
      <template #here-price="{ row }">{{ priceOf(row.here) }}</template>
      <template #there="{ row }">{{ countOf(row.there) }}</template>
      <template #there-price="{ row }">{{ priceOf(row.there) }}</template>
      <template #foot>
        <tr v-if="plan.shopping.hardware.lines.length">
          <td class="called" colspan="3">hardware</td>
          <td class="to-right figure">{{ compared.here_hardware }}</td>
          <td class="to-right figure" colspan="2">{{ compared.there_hardware }}</td>
        </tr>
        <tr class="total">
          <td colspan="3" class="called">total with tax</td>
          <td class="to-right figure">{{ compared.here_total }}</td>
          <td class="to-right figure" colspan="2">{{ compared.there_total }}</td>
        </tr>
        <tr>
          <td colspan="4" class="to-right quiet">{{ compared.here_claim }}</td>
          <td colspan="2" class="to-right quiet">{{ compared.there_claim }}</td>
        </tr>
      </template>
    </RuledTable>
    <p v-if="compared.left_out" class="quiet">
      {{ compared.left_out }} of the parts have no board at {{ compared.there }}.
    </p>
  </template>
</template>

<style scoped>
.compare {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 18px;
  margin-top: 26px;
}

.compare h2 {
  margin: 0;
}

.pick {
  max-width: 300px;
}

.verdict {
  font-weight: 650;
  margin: 4px 0 10px;
}

.total td {
  font-size: var(--text-large);
  border-top: 2px solid rgb(var(--v-theme-on-background));
}
</style>
