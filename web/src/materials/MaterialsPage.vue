<script setup lang="ts">
import ChangeLine from '../shared/ChangeLine.vue'
import HeldPage from '../shared/HeldPage.vue'
import NewMaterial from './NewMaterial.vue'
import OwnMaterials from './OwnMaterials.vue'
import { useMaterials } from './useMaterials'

const held = useMaterials()
</script>

<template>
  <HeldPage
    v-slot="{ thing: materials }"
    :held="held"
    called="The materials"
    fetching="Fetching materials"
  >
    <div class="page">
      <h1>Materials</h1>
      <p class="quiet lead">
        Woods and treatments by the words you put after a size, and materials of your own that the
        <RouterLink to="/sizes">size book</RouterLink> does not know: composite decking, salvaged
        beams, panels, dowels, pipes.
      </p>
      <ChangeLine :held="held" :change="materials.change" />

      <h2>Your own</h2>
      <OwnMaterials v-if="materials.own.length" :own="materials.own" :held="held" />
      <p v-else class="quiet">None yet.</p>
      <NewMaterial :held="held" :exposures="materials.exposures" />

      <h2>In the book</h2>
      <div class="scroll" tabindex="0" role="region" aria-label="Woods and treatments">
        <table class="ruled">
          <thead>
            <tr>
              <th>word</th>
              <th>wood</th>
              <th class="to-right">lb/ft³</th>
              <th class="to-right">kg/m³</th>
              <th>may stand</th>
              <th>caution</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="wood in materials.woods" :key="wood.word">
              <td class="called">{{ wood.word }}</td>
              <td>{{ wood.name }}</td>
              <td class="to-right figure">{{ wood.pounds_per_foot3 }}</td>
              <td class="to-right figure">{{ wood.kilograms_per_m3 }}</td>
              <td>{{ wood.exposure }}</td>
              <td class="quiet">{{ wood.caution }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="quiet small">
        Air-dry at 12 % moisture, after the USDA Wood Handbook, rounded. A stock without a word is
        taken for spruce-pine-fir.
      </p>
    </div>
  </HeldPage>
</template>

<style scoped>
table {
  min-width: 760px;
}
</style>
