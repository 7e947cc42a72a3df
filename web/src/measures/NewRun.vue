<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Project, RUN_FIELDS, useFaults } from '../api'
import { FormDialog } from '../shared'
import type { Measures } from './useMeasures'

/** A new run: what it is called, what it fills, of what, and how it is asked for. */
const props = defineProps<{ project: Project; measures: Measures }>()
const emit = defineEmits<{ made: [name: string] }>()
const open = defineModel<boolean>({ required: true })
const typed = ref({ name: '', along: '', item: '', way: 'gap', figure: '' })
const faults = useFaults('name')
const busy = ref(false)
const changed = computed(() => Object.entries(typed.value).some(([n, v]) => v && n !== 'way'))
const WAYS = RUN_FIELDS.find((one) => one.name === 'way')?.choices ?? []

async function save() {
  busy.value = true
  const outcome = await props.measures.addRun(typed.value)
  busy.value = false
  if (!faults.settle(outcome)) return
  emit('made', typed.value.name)
  open.value = false
}
</script>

<template>
  <FormDialog
    v-model="open"
    title="A run: equal things in a row"
    :width="520"
    :busy="busy"
    :changed="changed"
    act="Add"
    @save="save"
  >
    <div class="asked">
      <v-text-field
        v-model="typed.name"
        label="Name"
        placeholder="pickets"
        autofocus
        :error-messages="faults.at('name')"
      />
      <v-text-field
        v-model="typed.along"
        label="Along: the length it fills"
        :placeholder="project.unit === 'mm' ? '1210, or opening' : '72, or opening'"
        :error-messages="faults.at('along')"
      />
      <v-text-field
        v-model="typed.item"
        label="How wide one of them is"
        placeholder="3 1/2, or width of B"
        :error-messages="faults.at('item')"
      />
      <v-select v-model="typed.way" label="Asked for by" :items="[...WAYS]" />
      <v-text-field v-model="typed.figure" label="Figure" :error-messages="faults.at('figure')" />
    </div>
  </FormDialog>
</template>

<style scoped>
.asked {
  display: grid;
  gap: 12px;
}
</style>
