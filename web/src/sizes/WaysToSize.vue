<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import { ref } from 'vue'
import { api, outcomeOf, type WayToSize } from '../api/client'
import { useFaults } from '../api/faults'
import LengthText from '../shared/LengthText.vue'
import { useYards } from '../yards/useYards'

const WAYS: Record<string, string> = {
  rip: 'rip from',
  glue: 'glue edge to edge',
  'plane rough': 'plane from rough',
}

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
    <div v-if="ways" class="scroll" tabindex="0" role="region" aria-label="Ways to that size">
      <table class="ruled">
        <thead>
          <tr>
            <th>way</th>
            <th>boards</th>
            <th>real size of each</th>
            <th>comes off the width</th>
            <th>off the thickness</th>
            <th class="to-right">a running foot</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(way, index) in ways" :key="index">
            <td class="called">{{ WAYS[way.way] }}</td>
            <td class="figure">{{ way.boards > 1 ? `${way.boards} × ${way.size}` : way.size }}</td>
            <td>
              <LengthText :length="way.thickness.inches" bare /> ×
              <LengthText :length="way.width.inches" />
            </td>
            <td><LengthText :length="way.off_width.inches" /></td>
            <td><LengthText :length="way.off_thickness.inches" /></td>
            <td class="to-right figure">{{ way.cost ?? 'no price' }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.ask {
  display: grid;
  grid-template-columns: 1fr 1fr 1.6fr 1.2fr auto;
  gap: 12px;
  align-items: start;
}

.scroll {
  overflow-x: auto;
  margin-top: 10px;
}

@media (max-width: 760px) {
  .ask {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
