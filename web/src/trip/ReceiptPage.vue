<script setup lang="ts">
import { v4 as newId } from 'uuid'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useDrafts } from '../shared/useDrafts'
import { counted } from '../shared/counted'
import { day } from '../shared/dates'
import EditableCell from '../shared/EditableCell.vue'
import NowherePage from '../shared/NowherePage.vue'
import SectionText from '../shared/SectionText.vue'
import LineName from './LineName.vue'
import { api, outcomeOf, type Outcome, type Receipt, type Trip } from '../api/client'
import { keys } from '../api/keys'

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
    <div class="scroll" tabindex="0" role="region" aria-label="Receipt">
      <table class="ruled">
        <thead>
          <tr>
            <th>what</th>
            <th class="roomy">real size</th>
            <th class="to-right">planned</th>
            <th class="to-right roomy">each</th>
            <th class="to-right">paid for</th>
            <th class="to-right">each</th>
            <th class="to-right">together</th>
            <th class="to-right">against plan</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="line in receipt.lines" :key="line.key">
            <td class="called"><LineName :line="line" /></td>
            <td class="quiet roomy">
              <SectionText v-if="line.section" :section="line.section" />
            </td>
            <td class="to-right figure">{{ line.planned || '–' }}</td>
            <td class="to-right quiet roomy">
              {{ line.planned ? (line.planned_price ?? 'no price') : '' }}
            </td>
            <td class="typed">
              <EditableCell
                right
                :saved="String(line.paid)"
                :draft="drafts[`${line.key} count`]"
                :label="`Paid for, ${line.called}`"
                place="count"
                :save="(text) => correct(line.key, 'count', text)"
                @keep="(text) => keep(`${line.key} count`, text)"
                @drop="drop(`${line.key} count`)"
              />
            </td>
            <td class="typed">
              <EditableCell
                right
                :saved="line.paid_typed"
                :draft="drafts[`${line.key} price`]"
                :label="`Price paid for one, ${line.called}`"
                place="price"
                :save="(text) => correct(line.key, 'price', text)"
                @keep="(text) => keep(`${line.key} price`, text)"
                @drop="drop(`${line.key} price`)"
                >{{ line.paid_price ?? 'no price' }}</EditableCell
              >
            </td>
            <td class="to-right figure">{{ line.paid_together ?? 'no price' }}</td>
            <td class="to-right" :class="{ over: line.dearer }">
              {{ line.difference ? (line.dearer ? '+' : '') + line.difference : '' }}
              <span v-if="line.not_bought" class="quiet small"
                >{{ line.not_bought === line.planned ? '' : `${line.not_bought} ` }}not bought</span
              >
            </td>
          </tr>
        </tbody>
        <tfoot>
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
        </tfoot>
      </table>
    </div>
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

.scroll {
  overflow-x: auto;
  padding-bottom: 24px;
}

.typed {
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

@media (max-width: 600px) {
  .roomy {
    display: none;
  }
}
</style>
