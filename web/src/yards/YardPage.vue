<script setup lang="ts">
import { v4 as newId } from 'uuid'
import { useQueryClient } from '@tanstack/vue-query'
import { useSessionStorage } from '@vueuse/core'
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, keys, outcomeOf, useFaults } from '../api'
import { PricesImport } from '../imports'
import {
  ChangeLine,
  counted,
  FilesMenu,
  HeldPage,
  MenuOpener,
  NewRow,
  PageTurner,
  PlainDialog,
  useSearchedPage,
} from '../shared'
import AskTheYard from './AskTheYard.vue'
import PriceTable from './PriceTable.vue'
import { useYard } from './useYard'
import YardSettings from './YardSettings.vue'

const router = useRouter()
const queries = useQueryClient()
const id = String(useRoute().params.id)
const FILES = [
  { title: 'Price list, CSV', href: () => `/api/yards/${id}/prices.csv` },
  { title: 'Price list, XLSX', href: () => `/api/yards/${id}/prices.xlsx` },
  { title: 'Whole yard, JSON', href: () => `/api/yards/${id}/yard.json` },
]
const { search, found, page } = useSearchedPage()
const held = useYard(id, found, page)
const asking = ref(false)
const settings = ref(false)
const importing = ref(false)
const removing = ref(false)
const empty = { stock: '', length: '', price: '', per: 'each', date: '' }
const fresh = useSessionStorage<Record<string, string>>(`grain-tally:price-line:${id}`, {
  ...empty,
})
const faults = useFaults('stock')
const ASKED = [
  { name: 'stock', label: 'Stock', placeholder: '2x4 treated', wide: true },
  { name: 'length', label: 'Length', placeholder: '8ft' },
  { name: 'price', label: 'Price', placeholder: '5.18' },
  { name: 'per', label: 'Per', choices: ['each', 'ft', 'm', 'bf', 'sheet'] },
  { name: 'date', label: 'Date', placeholder: '2026-11-02' },
]

async function add() {
  const outcome = await held.writeLine(newId(), { ...fresh.value })
  if (faults.settle(outcome))
    fresh.value = { ...empty, per: fresh.value.per ?? '', date: fresh.value.date ?? '' }
}

const removal = useFaults('')

async function removeYard() {
  const outcome = await outcomeOf(
    api.DELETE('/api/yards/{yard_id}', { params: { path: { yard_id: id } } }),
  )
  if (!removal.settle(outcome)) return
  await queries.invalidateQueries({ queryKey: keys.yards })
  await router.push('/yards')
}
</script>

<template>
  <HeldPage v-slot="{ thing: yard }" :held="held" called="The yard" fetching="Fetching prices">
    <div class="page wide-page">
      <div class="top">
        <div>
          <h1>{{ yard.name }}</h1>
          <p class="quiet">
            {{ counted(yard.total, 'price line')
            }}<template v-if="yard.old_prices"
              >,
              <strong
                >{{ yard.old_prices }} older than {{ counted(yard.price_age_days, 'day') }}</strong
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
          <MenuOpener
            v-slot="{ opens }"
            :menu="FilesMenu"
            :of="{ called: 'Take away', files: FILES }"
          >
            <v-btn v-bind="opens">Take away</v-btn>
          </MenuOpener>
          <v-btn variant="text" @click="removing = true">Delete</v-btn>
        </div>
      </div>
      <ChangeLine :held="held" :change="yard.change" />
      <v-text-field v-model="search" label="Find a stock" class="find" clearable type="search" />
      <PriceTable :yard="yard" :held="held" />
      <PageTurner v-model="page" :found="yard.found" :size="yard.page_size" what="lines" />
      <p v-if="!yard.lines.length" class="quiet">
        {{
          yard.total ? 'No line like that.' : 'No prices yet: add the first line, or import a list.'
        }}
      </p>

      <h2>New price line</h2>
      <NewRow v-model="fresh" :asked="ASKED" :at="faults.at" act="Add" @made="add" />

      <AskTheYard v-model="asking" :yard="yard" :held="held" />
      <PricesImport v-model="importing" :yard="yard.name" />
      <YardSettings v-model="settings" :yard="yard" :held="held" />
      <PlainDialog v-model="removing" :title="`Delete ${yard.name}?`" :width="420">
        Its prices and their history go with it. Projects bought here have no yard then.
        <p v-for="fault in removal.at('')" :key="fault" role="alert" class="fault">{{ fault }}</p>
        <template #acts>
          <v-btn @click="removing = false">Keep it</v-btn>
          <v-btn color="error" @click="removeYard">Delete</v-btn>
        </template>
      </PlainDialog>
    </div>
  </HeldPage>
</template>

<style scoped>
.fault {
  padding: 0 24px;
  color: rgb(var(--v-theme-error));
}

.wide-page {
  max-width: 1240px;
}
</style>
