<script setup lang="ts">
import { ref, watch } from 'vue'
import { api, formOf, type Project, type Reading } from '../api'
import type { ProjectOnDesk } from '../project'
import { counted, LengthText, PlainDialog, RuledTable, SectionText } from '../shared'
import TableFile from './TableFile.vue'
import { useTableFile } from './useTableFile'

const COLUMNS = [
  { name: 'quantity', title: 'count', right: true, look: 'figure' },
  { name: 'name', title: 'part' },
  { name: 'stock', title: 'stock, real size' },
  { name: 'length', title: 'length', right: true, look: 'figure' },
]
const props = defineProps<{ project: Project; desk: ProjectOnDesk }>()
const open = defineModel<boolean>({ required: true })
const held = useTableFile<Reading>(open, (picked, names) => {
  const { unit, notation, id: project } = props.project
  return api.POST('/api/reading/parts-file', {
    body: { unit, notation, project, file: '', columns: names },
    bodySerializer: (body) => formOf({ ...body, file: picked }),
  })
})
const { file, reading, columns, busy, settle } = held

/** Whether the file comes in the place of the parts that are there. */
const instead = ref(false)
watch(open, () => (instead.value = false))

async function take() {
  const picked = file.value
  if (!picked) return
  busy.value = true
  const outcome = await props.desk.change((seen) =>
    api.POST('/api/projects/{project_id}/parts/import', {
      params: { path: { project_id: props.project.id } },
      body: { ...seen, file: '', columns: columns.value, instead: instead.value },
      bodySerializer: (body) =>
        formOf({
          ...body,
          version: String(body.version),
          instead: String(body.instead),
          file: picked,
        }),
    }),
  )
  busy.value = false
  if (settle(outcome)) open.value = false
}
</script>

<template>
  <PlainDialog v-model="open" title="Import a part list" :width="760">
    <p class="quiet gap-below">
      CSV or XLSX, its columns in any order: stock and length, and count, part, wood, notes and more
      if you like. Bare numbers are read as
      {{ project.unit === 'mm' ? 'millimetres' : 'inches' }}.
    </p>
    <TableFile label="Part list file" accept=".csv,.tsv,.txt,.xlsx" :held="held" />
    <RuledTable
      v-if="reading?.parts.length"
      called="What was understood"
      :columns="COLUMNS"
      :rows="reading.parts"
      :key-of="(_, index) => index"
    >
      <template #name="{ row }">
        {{ row.name }}
        <span v-if="row.later" class="quiet small">{{ row.later }}: not planned yet</span>
        <span v-for="warning in row.warnings" :key="warning" class="quiet small">{{
          warning
        }}</span>
      </template>
      <template #stock="{ row }">
        {{ row.stock }}
        <span v-if="row.section" class="quiet"><SectionText :section="row.section" /></span>
      </template>
      <template #length="{ row }"><LengthText :length="row.length" /></template>
    </RuledTable>
    <v-checkbox
      v-if="reading?.parts.length && project.parts.length"
      v-model="instead"
      :label="`Instead of the ${counted(project.parts.length, 'part')} there now: those in both keep their letters`"
      hide-details
      class="gap-above"
    />

    <template #acts>
      <v-btn @click="open = false">Cancel</v-btn>
      <v-btn
        color="primary"
        variant="flat"
        :disabled="!reading?.parts.length"
        :loading="busy"
        @click="take"
      >
        {{ instead ? 'Take' : 'Add' }} {{ counted(reading?.parts.length ?? 0, 'part') }}
      </v-btn>
    </template>
  </PlainDialog>
</template>

<style scoped>
.small {
  display: block;
  font-size: var(--text-small);
}
</style>
