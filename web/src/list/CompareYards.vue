<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { api, type Plan, type Project } from '../api/client'
import { keys } from '../api/keys'
import { useYards } from '../yards/useYards'

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
    <div class="scroll" tabindex="0" role="region" aria-label="Two yards">
      <table class="ruled">
        <thead>
          <tr>
            <th>stock</th>
            <th>length</th>
            <th class="to-right" colspan="2">{{ compared.here }}</th>
            <th class="to-right" colspan="2">{{ compared.there }}</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="line in compared.lines"
            :key="`${line.stock} ${line.named_length} ${line.spare}`"
          >
            <td class="called">{{ line.stock }}{{ line.spare ? ', spare' : '' }}</td>
            <td class="figure">{{ line.named_length }}</td>
            <template v-for="(side, index) in [line.here, line.there]" :key="index">
              <td class="to-right">
                <template v-if="side">{{ side.count }} × {{ side.price ?? 'no price' }}</template>
                <span v-else class="quiet">none</span>
              </td>
              <td class="to-right figure">{{ side ? (side.line_price ?? 'no price') : '' }}</td>
            </template>
          </tr>
          <tr v-if="plan.shopping.hardware.lines.length">
            <td class="called" colspan="3">hardware</td>
            <td class="to-right figure">{{ compared.here_hardware }}</td>
            <td class="to-right figure" colspan="2">{{ compared.there_hardware }}</td>
          </tr>
        </tbody>
        <tfoot>
          <tr class="total">
            <td colspan="3" class="called">total with tax</td>
            <td class="to-right figure">{{ compared.here_total }}</td>
            <td class="to-right figure" colspan="2">{{ compared.there_total }}</td>
          </tr>
          <tr>
            <td colspan="4" class="to-right quiet">{{ compared.here_claim }}</td>
            <td colspan="2" class="to-right quiet">{{ compared.there_claim }}</td>
          </tr>
        </tfoot>
      </table>
    </div>
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

.scroll {
  overflow-x: auto;
}

.total td {
  font-size: var(--text-large);
  border-top: 2px solid rgb(var(--v-theme-on-background));
}

tfoot td {
  border-bottom: 0 !important;
}
</style>
