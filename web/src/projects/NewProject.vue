<script setup lang="ts">
import { v4 as newId } from 'uuid'
import { useSessionStorage } from '@vueuse/core'
import { ref, useTemplateRef } from 'vue'
import { api, outcomeOf, type Project, useFaults } from '../api'
import { UNITS, YardChoice } from '../project'
import { NewRow } from '../shared'

/** The form that starts a project. */
const emit = defineEmits<{ made: [project: Project] }>()
const draft = useSessionStorage<Record<string, string>>('grain-tally:new-project', {
  name: '',
  unit: 'in',
  yard: '',
})
const faults = useFaults('name')
const busy = ref(false)
const yards = useTemplateRef('yards')
const ASKED = [
  { name: 'name', label: 'What do you build?', most: 100, wide: true },
  { name: 'unit', label: 'Measured in', choices: UNITS },
  { name: 'yard', label: 'Bought at' },
]

async function create() {
  busy.value = true
  const isSettled = await yards.value?.settle()
  if (!isSettled) {
    busy.value = false
    return
  }
  const { name = '', unit = '', yard } = draft.value
  const outcome = await outcomeOf<Project>(
    api.POST('/api/projects', { body: { id: newId(), name, unit, yard: yard || null } }),
  )
  busy.value = false
  if (!faults.settle(outcome)) return
  draft.value = { ...draft.value, name: '' }
  emit('made', outcome.data)
}
</script>

<template>
  <NewRow v-model="draft" :asked="ASKED" :at="faults.at" act="Start" :busy="busy" @made="create">
    <template #yard>
      <YardChoice
        ref="yards"
        :model-value="draft.yard ?? ''"
        label="Bought at"
        none="no yard yet"
        @update:model-value="(yard: string) => (draft = { ...draft, yard })"
      />
    </template>
  </NewRow>
</template>
