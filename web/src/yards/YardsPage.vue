<script setup lang="ts">
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import PricesImport from '../imports/PricesImport.vue'
import { day } from '../shared/dates'
import NewRow from '../shared/NewRow.vue'
import { ASKED_OF_A_YARD, useNewYard } from './useNewYard'
import { useYards } from './useYards'

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
    <div v-else-if="yards?.length" class="scroll" tabindex="0" role="region" aria-label="Yards">
      <table class="ruled">
        <thead>
          <tr>
            <th>yard</th>
            <th class="to-right">price lines</th>
            <th>newest price</th>
            <th>currency, tax</th>
            <th class="to-right">projects</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="yard in yards" :key="yard.id">
            <td>
              <RouterLink :to="`/yards/${yard.id}`" class="called link">{{ yard.name }}</RouterLink>
            </td>
            <td class="to-right figure">{{ yard.lines }}</td>
            <td>{{ yard.newest ? day(yard.newest) : 'no date' }}</td>
            <td>{{ yard.currency }}, {{ yard.tax_rate }} %</td>
            <td class="to-right figure">{{ yard.projects }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-else-if="yards" class="quiet">
      No yard yet. Without one, projects are planned from standard lengths, without prices.
    </p>

    <h2>New yard</h2>
    <NewRow v-model="typed" :asked="ASKED_OF_A_YARD" :at="faults.at" act="Start" @made="create" />
    <PricesImport v-model="importing" />
  </div>
</template>
