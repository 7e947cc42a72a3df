<script setup lang="ts">
import { v4 as newId } from 'uuid'
import { useQueryClient } from '@tanstack/vue-query'
import { refDebounced, useSessionStorage } from '@vueuse/core'
import { computed, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, outcomeOf, type Effect, type PriceFields, type PriceLine } from '../api/client'
import { useFaults } from '../api/faults'
import { useDrafts } from '../desk/useDrafts'
import EditableCell from '../shared/EditableCell.vue'
import LengthText from '../shared/LengthText.vue'
import NowherePage from '../shared/NowherePage.vue'
import EffectOfSize from '../shared/EffectOfSize.vue'
import PageTurner from '../shared/PageTurner.vue'
import PricesImport from '../imports/PricesImport.vue'
import AskTheYard from './AskTheYard.vue'
import PriceHistory from './PriceHistory.vue'
import YardSettings from './YardSettings.vue'
import { useYard } from './useYard'

const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const id = String(route.params.id)
const search = computed({
  get: () => String(route.query.find ?? ''),
  set: (find: string | null) => void router.replace({ query: { find: find || undefined } }),
})
const page = ref(1)
watch(search, () => (page.value = 1))
const held = useYard(id, refDebounced(search, 200), page)
const { yard, missing, isError, offline, waiting } = held
const { drafts, keep, drop } = useDrafts(id)
const effect = useTemplateRef('effect')
const asking = ref(false)
const settings = ref(false)
const importing = ref(false)
const removing = ref(false)
const history = ref<PriceLine>()
const empty = { stock: '', length: '', price: '', per: 'each', date: '' }
const fresh = useSessionStorage(`grain-tally:price-line:${id}`, { ...empty })
const faults = useFaults('stock')

type Field = keyof PriceFields & keyof PriceLine

function bind(line: PriceLine, field: Field, label: string) {
  const key = `${line.id}.${field}`
  return {
    saved: line[field],
    draft: drafts.value[key],
    label: `${label} of ${line.stock} ${line.named_length}`,
    place: field,
    save: (text: string) => save(line, field, text),
    onKeep: (text: string) => keep(key, text),
    onDrop: () => drop(key),
  }
}

function save(line: PriceLine, field: Field, text: string) {
  const write = () => held.writeLine(line.id, { [field]: text })
  if (field !== 'thickness' && field !== 'width') return write()
  const asked = outcomeOf<Effect[]>(
    api.POST('/api/yards/{yard_id}/lines/{line_id}/effect', {
      params: { path: { yard_id: id, line_id: line.id } },
      body: { [field]: text },
    }),
  )
  return effect.value ? effect.value.apply(asked, write) : write()
}

async function add() {
  const outcome = await held.writeLine(newId(), { ...fresh.value })
  if (faults.settle(outcome))
    fresh.value = { ...empty, per: fresh.value.per, date: fresh.value.date }
}

async function removeYard() {
  await outcomeOf(api.DELETE('/api/yards/{yard_id}', { params: { path: { yard_id: id } } }))
  await queries.invalidateQueries({ queryKey: ['yards'] })
  await router.push('/yards')
}
</script>

<template>
  <NowherePage v-if="missing" />
  <div v-else-if="isError && !yard" class="page" role="alert">
    <h1>The yard could not be loaded</h1>
    <v-btn @click="held.refetch()">Try again</v-btn>
  </div>
  <div v-else-if="!yard" class="page quiet" role="status">Fetching prices …</div>
  <div v-else class="page wide-page">
    <Teleport defer to="#header-acts">
      <v-btn :disabled="!yard.undo" :title="yard.undo ?? undefined" @click="held.step('undo')"
        >Undo</v-btn
      >
      <v-btn :disabled="!yard.redo" :title="yard.redo ?? undefined" @click="held.step('redo')"
        >Redo</v-btn
      >
    </Teleport>
    <div class="top">
      <div>
        <h1>{{ yard.name }}</h1>
        <p class="quiet">
          {{ yard.total.toLocaleString() }} price lines<template v-if="yard.old_prices"
            >,
            <strong
              >{{ yard.old_prices }} older than {{ yard.price_age_days }} days</strong
            ></template
          >
          in {{ yard.currency }}, tax {{ yard.tax_rate }} %{{
            yard.prices_include_tax ? ' included' : ''
          }}, board feet
          {{ yard.board_foot_rounding === 'each' ? 'by whole inches' : 'with fractions' }}
        </p>
      </div>
      <div class="acts">
        <v-btn v-if="yard.price_service && yard.total" @click="asking = true">Ask the yard</v-btn>
        <v-btn @click="importing = true">Import prices</v-btn>
        <v-btn @click="settings = true">Settings</v-btn>
        <v-menu>
          <template #activator="{ props: menu }"><v-btn v-bind="menu">Take away</v-btn></template>
          <v-list>
            <v-list-item :href="`/api/yards/${id}/prices.csv`" title="Price list, CSV" />
            <v-list-item :href="`/api/yards/${id}/prices.xlsx`" title="Price list, XLSX" />
            <v-list-item :href="`/api/yards/${id}/yard.json`" title="Whole yard, JSON" />
          </v-list>
        </v-menu>
        <v-btn variant="text" @click="removing = true">Delete</v-btn>
      </div>
    </div>
    <p class="change" role="status">
      <template v-if="offline"
        ><strong class="text-error">No connection.</strong> What you typed is kept.</template
      >
      <template v-else-if="waiting">Saving …</template>
      <template v-else>{{ yard.change }}</template>
    </p>
    <v-text-field v-model="search" label="Find a stock" class="find" clearable type="search" />
    <div class="scroll" tabindex="0" role="region" aria-label="Price list">
      <table class="ruled">
        <thead>
          <tr>
            <th>stock</th>
            <th>real size</th>
            <th>length</th>
            <th>really</th>
            <th class="to-right">price</th>
            <th>per</th>
            <th class="to-right">a piece</th>
            <th class="to-right">in stock</th>
            <th>dated</th>
            <th><span class="said-only">history, remove</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="line in yard.lines" :key="line.id">
            <td>
              <div class="stock">
                <span
                  class="swatch"
                  :style="{ background: `rgb(var(--v-theme-${line.kind}))` }"
                ></span>
                <EditableCell v-bind="bind(line, 'stock', 'Stock')" class="called" />
              </div>
            </td>
            <td>
              <div class="size">
                <template v-if="line.section">
                  <EditableCell
                    v-bind="bind(line, 'thickness', 'Real thickness')"
                    takes-length
                    class="narrow"
                  >
                    <LengthText :length="line.section.thickness" bare />
                  </EditableCell>
                  ×
                  <EditableCell
                    v-bind="bind(line, 'width', 'Real width')"
                    takes-length
                    class="narrow"
                  >
                    <LengthText :length="line.section.width" bare />
                  </EditableCell>
                </template>
                <abbr v-if="line.section_is_own" title="this yard's own section">yard</abbr>
              </div>
            </td>
            <td><EditableCell v-bind="bind(line, 'length', 'Length')" class="figure" /></td>
            <td>
              <EditableCell v-bind="bind(line, 'actual', 'Real length')" class="quiet">
                <LengthText :length="line.real_length" />
              </EditableCell>
            </td>
            <td><EditableCell v-bind="bind(line, 'price', 'Price')" right class="figure" /></td>
            <td><EditableCell v-bind="bind(line, 'per', 'Priced per')" /></td>
            <td class="to-right figure">{{ line.piece_price ?? 'no price' }}</td>
            <td>
              <EditableCell v-bind="bind(line, 'available', 'In stock')" right>{{
                line.available || 'plenty'
              }}</EditableCell>
            </td>
            <td>
              <EditableCell v-bind="bind(line, 'date', 'Date')" />
              <span v-if="line.is_old" class="old">old price</span>
            </td>
            <td class="to-right acts-cell">
              <v-btn
                variant="text"
                size="small"
                :aria-label="`Price history of ${line.stock} ${line.named_length}`"
                @click="history = line"
                >History</v-btn
              >
              <v-btn
                variant="text"
                size="small"
                :aria-label="`Remove ${line.stock} ${line.named_length}`"
                @click="held.removeLines([line.id])"
                >Remove</v-btn
              >
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <PageTurner v-model="page" :found="yard.found" :size="yard.page_size" what="lines" />
    <p v-if="!yard.lines.length" class="quiet">
      {{
        yard.total ? 'No line like that.' : 'No prices yet: add the first line, or import a list.'
      }}
    </p>

    <h2>New price line</h2>
    <form class="new" @submit.prevent="add">
      <v-text-field
        v-model="fresh.stock"
        label="Stock"
        placeholder="2x4 treated"
        :error-messages="faults.at('stock')"
      />
      <v-text-field
        v-model="fresh.length"
        label="Length"
        placeholder="8ft"
        :error-messages="faults.at('length')"
      />
      <v-text-field
        v-model="fresh.price"
        label="Price"
        placeholder="5.18"
        :error-messages="faults.at('price')"
      />
      <v-select
        v-model="fresh.per"
        label="Per"
        :items="['each', 'ft', 'm', 'bf', 'sheet']"
        :error-messages="faults.at('per')"
      />
      <v-text-field
        v-model="fresh.date"
        label="Date"
        placeholder="2026-11-02"
        :error-messages="faults.at('date')"
      />
      <v-btn type="submit" color="primary" variant="flat">Add</v-btn>
    </form>

    <PriceHistory v-model="history" :yard="id" />
    <EffectOfSize ref="effect" />
    <AskTheYard v-model="asking" :yard="yard" :held="held" />
    <PricesImport v-model="importing" :yard="yard.name" />
    <YardSettings v-model="settings" :yard="yard" :held="held" />
    <v-dialog v-model="removing" max-width="420">
      <v-card :title="`Delete ${yard.name}?`">
        <v-card-text
          >Its prices and their history go with it. Projects bought here have no yard
          then.</v-card-text
        >
        <v-card-actions>
          <v-btn @click="removing = false">Keep it</v-btn>
          <v-btn color="error" @click="removeYard">Delete</v-btn>
        </v-card-actions>
      </v-card>
    </v-dialog>
  </div>
</template>

<style scoped>
.wide-page {
  max-width: 1240px;
}

.top {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: flex-start;
  justify-content: space-between;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.change {
  min-height: 1.4em;
  font-size: 0.86rem;
  margin: 8px 0;
}

.find {
  max-width: 320px;
  margin-bottom: 8px;
}

.scroll {
  overflow-x: auto;
}

table {
  min-width: 900px;
}

.stock {
  display: flex;
  align-items: center;
  gap: 9px;
  min-width: 150px;
}

.stock :deep(.cell) {
  flex: 1;
}

.swatch {
  flex: none;
  width: 13px;
  height: 13px;
  border: 1px solid #17232a44;
  border-radius: 2px;
}

.size {
  display: flex;
  align-items: center;
  gap: 3px;
  white-space: nowrap;
}

.narrow {
  width: 46px;
}

.old {
  display: block;
  font-size: 0.76rem;
  color: rgb(var(--v-theme-error));
  padding-left: 2px;
}

.acts-cell {
  white-space: nowrap;
}

abbr {
  text-decoration: none;
  border-bottom: 1px dotted;
  font-size: 0.8rem;
  margin-left: 5px;
}

.new {
  display: grid;
  grid-template-columns: 2fr 1fr 1fr 1fr 1.2fr auto;
  gap: 10px;
  align-items: start;
}

@media (max-width: 760px) {
  .new {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
