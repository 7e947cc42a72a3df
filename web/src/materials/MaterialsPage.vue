<script setup lang="ts">
import { ChangeLine, HeldPage, RuledTable } from '../shared'
import NewMaterial from './NewMaterial.vue'
import OwnMaterials from './OwnMaterials.vue'
import { useMaterials } from './useMaterials'

const held = useMaterials()
const OF_WOODS = [
  { name: 'word', title: 'word', look: 'called' },
  { name: 'name', title: 'wood' },
  { name: 'pounds_per_foot3', title: 'lb/ft³', right: true, look: 'figure' },
  { name: 'kilograms_per_m3', title: 'kg/m³', right: true, look: 'figure' },
  { name: 'exposure', title: 'may stand' },
  { name: 'caution', title: 'caution', look: 'quiet' },
]
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
      <RuledTable
        called="Woods and treatments"
        :columns="OF_WOODS"
        :rows="materials.woods"
        :key-of="(wood) => wood.word"
        :at-least="760"
      />
      <p class="quiet small">
        Air-dry at 12 % moisture, after the USDA Wood Handbook, rounded. A stock without a word is
        taken for spruce-pine-fir.
      </p>
    </div>
  </HeldPage>
</template>
