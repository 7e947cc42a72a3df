<script setup lang="ts">
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { PricesImport } from '../imports'
import { ASKED_OF_A_YARD, useNewYard, useYards } from '../project'
import { day, NewRow, RuledTable } from '../shared'

const COLUMNS = [
  { name: 'name', title: 'yard' },
  { name: 'lines', title: 'price lines', right: true, look: 'figure' },
  { name: 'newest', title: 'newest price' },
  { name: 'tax', title: 'currency, tax' },
  { name: 'projects', title: 'projects', right: true, look: 'figure' },
]
const router = useRouter()
const { yards, isError, refetch } = useYards()
const { typed, faults, make } = useNewYard()
const importing = ref(false)

async function create() {
  const made = await make()
  if (made) await router.push(`/yards/${made.id}`)
}
</script>

<template>
  <div class="page">
    <div class="top">
      <h1>Yards</h1>
      <v-btn @click="importing = true">Import prices</v-btn>
    </div>
    <div v-if="isError && !yards" role="alert">
      <p>The yards could not be loaded.</p>
      <v-btn @click="refetch()">Try again</v-btn>
    </div>
    <RuledTable
      v-else-if="yards?.length"
      called="Yards"
      :columns="COLUMNS"
      :rows="yards"
      :key-of="(yard) => yard.id"
    >
      <template #name="{ row }">
        <RouterLink :to="`/yards/${row.id}`" class="called link">{{ row.name }}</RouterLink>
      </template>
      <template #newest="{ row }">{{ row.newest ? day(row.newest) : 'no date' }}</template>
      <template #tax="{ row }">{{ row.currency }}, {{ row.tax_rate }} %</template>
    </RuledTable>
    <p v-else-if="yards" class="quiet">
      No yard yet. Without one, projects are planned from standard lengths, without prices.
    </p>

    <template v-if="yards || isError">
      <h2>New yard</h2>
      <NewRow v-model="typed" :asked="ASKED_OF_A_YARD" :at="faults.at" act="Start" @made="create" />
    </template>
    <PricesImport v-model="importing" />
  </div>
</template>
