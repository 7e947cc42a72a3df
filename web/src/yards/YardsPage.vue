<script setup lang="ts">
import { v4 as newId } from 'uuid'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, outcomeOf, type Yard } from '../api/client'
import { useFaults } from '../api/faults'
import PricesImport from '../imports/PricesImport.vue'

const router = useRouter()
const queries = useQueryClient()
const {
  data: yards,
  isError,
  refetch,
} = useQuery({
  queryKey: ['yards'],
  queryFn: async () => {
    const { data } = await api.GET('/api/yards')
    if (!data) throw new Error('no yards')
    return data
  },
})
const importing = ref(false)
const form = ref({ name: '', currency: 'USD', unit: 'in' })
const faults = useFaults('name')

async function create() {
  const outcome = await outcomeOf<Yard>(
    api.POST('/api/yards', { body: { id: newId(), ...form.value } }),
  )
  if (faults.settle(outcome)) {
    queries.setQueryData(['yard', outcome.data.id], outcome.data)
    void queries.invalidateQueries({ queryKey: ['yards'] })
    await router.push(`/yards/${outcome.data.id}`)
  }
}
</script>

<template>
  <div class="page">
    <div class="top">
      <h1>Yards</h1>
      <v-btn @click="importing = true">Import prices</v-btn>
    </div>
    <div v-if="isError" role="alert">
      <p>The yards could not be loaded.</p>
      <v-btn @click="refetch()">Try again</v-btn>
    </div>
    <table v-else-if="yards?.length" class="ruled">
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
          <td>{{ yard.newest || 'no date' }}</td>
          <td>{{ yard.currency }}, {{ yard.tax_rate }} %</td>
          <td class="to-right figure">{{ yard.projects }}</td>
        </tr>
      </tbody>
    </table>
    <p v-else-if="yards" class="quiet">
      No yard yet. Without one, projects are planned from standard lengths, without prices.
    </p>

    <h2>New yard</h2>
    <form class="new" @submit.prevent="create">
      <v-text-field
        v-model="form.name"
        label="Name"
        maxlength="100"
        :error-messages="faults.at('name')"
      />
      <v-text-field
        v-model="form.currency"
        label="Currency"
        maxlength="3"
        :error-messages="faults.at('currency')"
      />
      <v-select
        v-model="form.unit"
        label="Bare lengths are"
        :items="[
          { title: 'inches', value: 'in' },
          { title: 'millimetres', value: 'mm' },
        ]"
      />
      <v-btn type="submit" color="primary" variant="flat">Start</v-btn>
    </form>
    <PricesImport v-model="importing" />
  </div>
</template>

<style scoped>
.top {
  display: flex;
  align-items: center;
  justify-content: space-between;
}

.link {
  color: inherit;
}

.new {
  display: grid;
  grid-template-columns: 2fr 1fr 1.3fr auto;
  gap: 12px;
  align-items: start;
}

@media (max-width: 760px) {
  .new {
    grid-template-columns: 1fr;
  }
}
</style>
