<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, ref } from 'vue'
import { type Problem, useFaults } from '../api'
import { PlainDialog } from '../shared'
import type { Order } from './useCutting'

/** What of the shop is printed: the set-ups, and a label for every piece, on plain paper or on sheets
 * of labels by their measures. */
const props = defineProps<{ project: string; order: Order }>()
const open = defineModel<boolean>({ required: true })

const PAPERS = [
  { value: 'letter', title: 'Letter' },
  { value: 'a4', title: 'A4' },
]
const MEASURES = [
  { name: 'columns', label: 'Across', isLength: false },
  { name: 'rows', label: 'Down', isLength: false },
  { name: 'wide', label: 'Each wide', isLength: true },
  { name: 'high', label: 'Each high', isLength: true },
  { name: 'left', label: 'First from the left', isLength: true },
  { name: 'top', label: 'First from the top', isLength: true },
  { name: 'apart', label: 'Between, across', isLength: true },
  { name: 'below', label: 'Between, down', isLength: true },
] as const
const paper = useLocalStorage('grain-tally:paper', 'letter')
const onSheets = useLocalStorage('grain-tally:label-sheets', false)
const typed = useLocalStorage<Record<string, string>>('grain-tally:label-sheet', {
  columns: '3',
  rows: '10',
  wide: '2 5/8',
  high: '1',
  left: '3/16',
  top: '1/2',
  apart: '1/8',
  below: '0',
})
const faults = useFaults('columns')
const busy = ref(false)
const base = computed(() => `/api/projects/${props.project}`)
const sheet = computed(
  () => `${base.value}/shop-sheet.pdf?paper=${paper.value}&by_board=${props.order === 'by_board'}`,
)

async function labels() {
  busy.value = true
  const asked = new URLSearchParams({ paper: paper.value, ...(onSheets.value ? typed.value : {}) })
  try {
    const answer = await fetch(`${base.value}/part-labels.pdf?${asked.toString()}`)
    if (answer.ok) {
      faults.clear()
      const link = document.createElement('a')
      link.href = URL.createObjectURL(await answer.blob())
      link.download = 'labels.pdf'
      link.click()
    } else {
      const fault = (await answer.json()) as { detail: string; problems: Problem[] }
      faults.settle({ kind: 'refused', ...fault })
    }
  } catch {
    faults.settle({ kind: 'offline' })
  }
  busy.value = false
}
</script>

<template>
  <PlainDialog v-model="open" title="On paper" :width="560">
    <v-select v-model="paper" :items="PAPERS" label="Paper" class="gap-below" />
    <p>
      <v-btn height="48" :href="sheet" download>Shop sheet</v-btn>
      <span class="quiet beside">every set-up, to work without a screen</span>
    </p>
    <form @submit.prevent="labels">
      <v-checkbox v-model="onSheets" label="Labels on sheets of labels, by their measures" />
      <div v-if="onSheets" class="measures">
        <v-text-field
          v-for="one in MEASURES"
          :key="one.name"
          v-model="typed[one.name]"
          :label="one.label"
          :data-takes="one.isLength ? 'length' : undefined"
          :error-messages="faults.at(one.name)"
          autocomplete="off"
        />
      </div>
      <p class="gap-above">
        <v-btn type="submit" height="48" :loading="busy">Labels</v-btn>
        <span class="quiet beside">letter, name, length, board, where it goes</span>
      </p>
      <p v-if="!onSheets && faults.at('columns').length" role="alert" class="text-error">
        {{ faults.at('columns').join('; ') }}
      </p>
    </form>

    <template #acts><v-btn height="48" @click="open = false">Close</v-btn></template>
  </PlainDialog>
</template>

<style scoped>
.beside {
  margin-left: 12px;
}

.measures {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(120px, 1fr));
  gap: 12px;
  padding-top: 8px;
}
</style>
