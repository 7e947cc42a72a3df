<script setup lang="ts">
import { v4 as newId } from 'uuid'
import { useSessionStorage } from '@vueuse/core'
import { computed } from 'vue'
import { useFaults } from '../api'
import type { MaterialsInHand } from './useMaterials'

/** The form that makes a material of one's own. */
const props = defineProps<{ held: MaterialsInHand; exposures: string[] }>()
const faults = useFaults('name')
const empty = {
  name: '',
  form: 'board',
  thickness: '',
  width: '',
  density: '',
  kind: 'plain',
  exposure: 'indoors, or sealed on every face',
  caution: '',
}
const fresh = useSessionStorage('grain-tally:material', { ...empty })
const isRound = computed(() => fresh.value.form === 'round')
const FORMS = [
  { title: 'board', value: 'board' },
  { title: 'sheet or panel', value: 'sheet' },
  { title: 'round: dowel, pipe', value: 'round' },
]
const KINDS = ['plain', 'treated', 'durable', 'composite']

async function add() {
  const outcome = await props.held.write(newId(), { ...fresh.value })
  if (faults.settle(outcome)) fresh.value = { ...empty }
}
</script>

<template>
  <form class="new" @submit.prevent="add">
    <v-text-field
      v-model="fresh.name"
      label="Name"
      placeholder="barn beam"
      :error-messages="faults.at('name')"
    />
    <v-select v-model="fresh.form" label="Form" :items="FORMS" />
    <v-text-field
      v-model="fresh.thickness"
      :label="isRound ? 'Diameter' : 'Thickness'"
      data-takes="length"
      :error-messages="faults.at('thickness')"
    />
    <v-text-field
      v-if="!isRound"
      v-model="fresh.width"
      label="Width"
      data-takes="length"
      :error-messages="faults.at('width')"
    />
    <v-text-field
      v-model="fresh.density"
      label="Weight, kg/m³"
      placeholder="500"
      :error-messages="faults.at('density')"
    />
    <v-select v-if="fresh.form !== 'sheet'" v-model="fresh.kind" label="Drawn as" :items="KINDS" />
    <v-select v-model="fresh.exposure" label="May stand" :items="exposures" class="span" />
    <v-text-field
      v-model="fresh.caution"
      label="Caution"
      placeholder="nails inside"
      class="span"
      :error-messages="faults.at('caution')"
    />
    <v-btn type="submit" color="primary" variant="flat">Add it</v-btn>
  </form>
</template>

<style scoped>
.new {
  display: grid;
  grid-template-columns: repeat(6, 1fr);
  gap: 12px;
  align-items: start;
  margin-top: 14px;
}

.span {
  grid-column: span 2;
}

@media (max-width: 760px) {
  .new {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
