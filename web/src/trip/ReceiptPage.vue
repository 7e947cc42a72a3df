<script setup lang="ts">
import { v4 as newId } from 'uuid'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, keys, type Outcome, outcomeOf, type Receipt, type Trip } from '../api'
import {
  counted,
  day,
  EditableCell,
  NowherePage,
  RuledTable,
  SectionText,
  useDrafts,
} from '../shared'
import LineName from './LineName.vue'

const COLUMNS = [
  { name: 'name', title: 'what', look: 'called' },
  { name: 'section', title: 'real size', roomy: true, look: 'quiet' },
  { name: 'planned', title: 'planned', right: true, look: 'figure' },
  { name: 'each', title: 'each', right: true, roomy: true, look: 'quiet' },
  { name: 'count', title: 'paid for', right: true, look: 'typed' },
  { name: 'price', title: 'each', right: true, look: 'typed' },
  { name: 'together', title: 'together', right: true, look: 'figure' },
  { name: 'against', title: 'against plan', right: true },
]
const trip_id = String(useRoute().params.id)
const router = useRouter()
const queries = useQueryClient()
const key = keys.receipt(trip_id)
const params = { path: { trip_id } }
const { data, isError, refetch } = useQuery({
  queryKey: key,
  queryFn: async () => {
    const { data, response } = await api.GET('/api/trips/{trip_id}/receipt', { params })
    if (response.status === 404) return null
    if (!data) throw new Error('the receipt could not be loaded')
    return data
  },
})
const receipt = computed(() => data.value ?? undefined)
const fault = ref('')
const learned = ref(0)
const { drafts, keep, drop } = useDrafts(`receipt-${trip_id}`)

async function correct(
  line: string,
  field: 'count' | 'price',
  text: string,
): Promise<Outcome<Receipt>> {
  const outcome = await outcomeOf<Receipt>(
    api.PUT('/api/trips/{trip_id}/receipt', { params, body: { line, [field]: text } }),
  )
  if (outcome.kind === 'done') queries.setQueryData(key, outcome.data)
  return outcome
}

function told(outcome: Outcome<unknown>): string {
  if (outcome.kind === 'done') return ''
  if (outcome.kind === 'offline') return 'there is no connection: try again when it returns'
  return 'detail' in outcome ? outcome.detail : 'sign in again'
}

async function keepPrices() {
  const count = receipt.value?.learns ?? 0
  const outcome = await outcomeOf<Receipt>(
    api.POST('/api/trips/{trip_id}/keep-prices', {
      params,
      body: { change_id: newId() },
    }),
  )
  fault.value = told(outcome)
  if (outcome.kind !== 'done') return
  learned.value = count
  queries.setQueryData(key, outcome.data)
  void queries.invalidateQueries({ queryKey: keys.anyYard })
  void queries.invalidateQueries({ queryKey: keys.project(outcome.data.project) })
}

async function openAgain() {
  const outcome = await outcomeOf<Trip>(
    api.POST('/api/trips/{trip_id}/open-again', {
      params,
      body: { change_id: newId() },
    }),
  )
  fault.value = told(outcome)
  if (outcome.kind !== 'done') return
  for (const also of [key, keys.rack, keys.anyPlan, keys.project(outcome.data.project)]) {
    void queries.invalidateQueries({ queryKey: also })
  }
  await router.push(`/projects/${outcome.data.project}/yard`)
}
</script>

<template>
  <NowherePage v-if="data === null" />
  <div v-else-if="isError && !receipt" class="page" role="alert">
    <h1>The receipt could not be loaded</h1>
    <v-btn @click="refetch()">Try again</v-btn>
  </div>
  <div v-else-if="!receipt" class="page quiet" role="status">Adding up …</div>
  <div v-else class="page">
    <h1>What was paid</h1>
    <p class="quiet">
      At {{ receipt.yard }} for
      <RouterLink :to="`/projects/${receipt.project}/list`">{{
        receipt.project_name
      }}</RouterLink><template v-if="receipt.finished">, {{ day(receipt.finished) }}</template
      ><template v-else>; the trip is still under way</template>. Paid is what was taken at its tag;
      correct it from the slip.
    </p>
    <p class="verdict called" :class="{ over: receipt.over }" role="status">{{ receipt.told }}</p>
    <RuledTable
      class="lines"
      called="Receipt"
      :columns="COLUMNS"
      :rows="receipt.lines"
      :key-of="(line) => line.key"
    >
      <template #name="{ row }"><LineName :line="row" /></template>
      <template #section="{ row }">
        <SectionText v-if="row.section" :section="row.section" />
      </template>
      <template #planned="{ row }">{{ row.planned || '–' }}</template>
      <template #each="{ row }">
        {{ row.planned ? (row.planned_price ?? 'no price') : '' }}
      </template>
      <template #count="{ row }">
        <EditableCell
          right
          :saved="String(row.paid)"
          :draft="drafts[`${row.key} count`]"
          :label="`Paid for, ${row.called}`"
          place="count"
          :save="(text) => correct(row.key, 'count', text)"
          @keep="(text) => keep(`${row.key} count`, text)"
          @drop="drop(`${row.key} count`)"
        />
      </template>
      <template #price="{ row }">
        <EditableCell
          right
          :saved="row.paid_typed"
          :draft="drafts[`${row.key} price`]"
          :label="`Price paid for one, ${row.called}`"
          place="price"
          :save="(text) => correct(row.key, 'price', text)"
          @keep="(text) => keep(`${row.key} price`, text)"
          @drop="drop(`${row.key} price`)"
          >{{ row.paid_price ?? 'no price' }}</EditableCell
        >
      </template>
      <template #together="{ row }">{{ row.paid_together ?? 'no price' }}</template>
      <template #against="{ row }">
        <span :class="{ over: row.dearer }">
          {{ row.difference ? (row.dearer ? '+' : '') + row.difference : '' }}
          <span v-if="row.not_bought" class="quiet small"
            >{{ row.not_bought === row.planned ? '' : `${row.not_bought} ` }}not bought</span
          >
        </span>
      </template>
      <template #foot>
        <tr class="total">
          <td class="called">
            with tax {{ receipt.tax_rate }} %{{ receipt.tax_included ? ', included' : '' }}
          </td>
          <td class="roomy"></td>
          <td class="roomy"></td>
          <td class="to-right">{{ receipt.planned }} planned</td>
          <td colspan="3" class="to-right figure">{{ receipt.paid }}</td>
          <td></td>
        </tr>
      </template>
    </RuledTable>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <div class="acts">
      <v-btn v-if="receipt.learns" color="primary" variant="flat" @click="keepPrices"
        >Write {{ counted(receipt.learns, 'price') }} into the list of {{ receipt.yard }}</v-btn
      >
      <span v-else-if="learned" role="status"
        >{{ learned }} {{ learned === 1 ? 'price is' : 'prices are' }} in
        <RouterLink :to="`/yards/${receipt.yard_id}`">the list</RouterLink>; undo stands
        there.</span
      >
      <v-btn v-if="receipt.finished" @click="openAgain">Back to the yard</v-btn>
      <RouterLink v-if="receipt.laid" to="/rack"
        >{{ counted(receipt.laid, 'board') }} on the rack</RouterLink
      >
    </div>
  </div>
</template>

<style scoped>
.verdict {
  font-size: var(--text-lead);
  margin-top: 10px;
}

.over {
  color: rgb(var(--v-theme-error));
}

.lines {
  padding-bottom: 24px;
}

:deep(.typed) {
  width: 84px;
  min-width: 62px;
}

.total td {
  font-size: var(--text-large);
  border-bottom: 0;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 14px;
  align-items: center;
}

.fault {
  color: rgb(var(--v-theme-error));
}
</style>
