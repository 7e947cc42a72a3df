<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import { ref } from 'vue'
import { api, outcomeOf, useFaults, type WayToSize } from '../api'
import { useYards } from '../project'
import { LengthText, RuledTable } from '../shared'

const WAYS: Record<string, string> = {
  rip: 'rip from',
  glue: 'glue edge to edge',
  'plane rough': 'plane from rough',
}

const COLUMNS = [
  { name: 'way', title: 'way', look: 'called' },
  { name: 'boards', title: 'boards', look: 'figure' },
  { name: 'section', title: 'real size of each' },
  { name: 'width', title: 'comes off the width' },
  { name: 'thickness', title: 'off the thickness' },
  { name: 'cost', title: 'a running foot', right: true, look: 'figure' },
]
const asked = useSessionStorage('grain-tally:finished-size', {
  thickness: '',
  width: '',
  yard: '',
  words: '',
})
const ways = ref<WayToSize[]>()
const faults = useFaults('thickness')
const { yards } = useYards()

async function ask() {
  const { thickness, width, yard, words } = asked.value
  const outcome = await outcomeOf<WayToSize[]>(
    api.GET('/api/sizes/ways', {
      params: { query: { thickness, width, words, yard: yard || null } },
    }),
  )
  ways.value = faults.settle(outcome) ? outcome.data : undefined
}
</script>

<template>
  <section>
    <h2>What to buy for a finished size</h2>
    <form class="ask" @submit.prevent="ask">
      <v-text-field
        v-model="asked.thickness"
        label="Thickness"
        placeholder="3/4"
        :error-messages="faults.at('thickness')"
      />
      <v-text-field
        v-model="asked.width"
        label="Width"
        placeholder="6 1/8"
        :error-messages="faults.at('width')"
      />
      <v-select
        v-model="asked.yard"
        label="Prices of"
        :items="[
          { title: 'no yard: by the wood it takes', value: '' },
          ...(yards ?? []).map((y) => ({ title: y.name, value: y.id })),
        ]"
      />
      <v-text-field v-model="asked.words" label="Wood" placeholder="cedar" />
      <v-btn type="submit" color="primary" variant="flat">Find</v-btn>
    </form>
    <RuledTable
      v-if="ways"
      class="ways"
      called="Ways to that size"
      :columns="COLUMNS"
      :rows="ways"
      :key-of="(_, index) => index"
    >
      <template #way="{ row }">{{ WAYS[row.way] }}</template>
      <template #boards="{ row }">{{
        row.boards > 1 ? `${row.boards} × ${row.size}` : row.size
      }}</template>
      <template #section="{ row }">
        <LengthText :length="row.thickness.inches" bare /> ×
        <LengthText :length="row.width.inches" />
      </template>
      <template #width="{ row }"><LengthText :length="row.off_width.inches" /></template>
      <template #thickness="{ row }"><LengthText :length="row.off_thickness.inches" /></template>
      <template #cost="{ row }">{{ row.cost ?? 'no price' }}</template>
    </RuledTable>
  </section>
</template>

<style scoped>
.ask {
  display: grid;
  grid-template-columns: 1fr 1fr 1.6fr 1.2fr auto;
  gap: 12px;
  align-items: start;
}

.ways {
  margin-top: 10px;
}

@media (max-width: 760px) {
  .ask {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
