<script setup lang="ts">
import { ref, watch } from 'vue'
import { api, formOf, type Project, type Reading } from '../api/client'
import type { ProjectOnDesk } from '../desk/useProject'
import { counted } from '../shared/counted'
import LengthText from '../shared/LengthText.vue'
import SectionText from '../shared/SectionText.vue'
import ColumnChoice from './ColumnChoice.vue'
import FaultList from './FaultList.vue'
import FilePick from './FilePick.vue'
import { useTableFile } from './useTableFile'

const props = defineProps<{ project: Project; desk: ProjectOnDesk }>()
const open = defineModel<boolean>({ required: true })
const { file, reading, columns, busy, problems, settle, chosen, choose } = useTableFile<Reading>(
  open,
  (picked, names) => {
    const { unit, notation, id: project } = props.project
    return api.POST('/api/reading/parts-file', {
      body: { unit, notation, project, file: '', columns: names },
      bodySerializer: (body) => formOf({ ...body, file: picked }),
    })
  },
)

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
  <v-dialog v-model="open" max-width="760" scrollable aria-label="Import a part list">
    <v-card title="Import a part list">
      <v-card-text>
        <p class="quiet gap-below">
          CSV or XLSX, its columns in any order: stock and length, and count, part, wood, notes and
          more if you like. Bare numbers are read as
          {{ project.unit === 'mm' ? 'millimetres' : 'inches' }}.
        </p>
        <FilePick
          label="Part list file"
          accept=".csv,.tsv,.txt,.xlsx"
          :file="file"
          @picked="chosen"
        />
        <ColumnChoice
          v-if="reading?.columns.length"
          :columns="reading.columns"
          :choices="reading.choices"
          @choose="choose"
        />
        <FaultList
          :problems="problems"
          :lead="`Nothing is imported: ${counted(problems.length, 'thing')} to mend.`"
        />
        <table v-if="reading?.parts.length" class="ruled">
          <caption class="said-only">
            What was understood
          </caption>
          <thead>
            <tr>
              <th class="to-right">count</th>
              <th>part</th>
              <th>stock, real size</th>
              <th class="to-right">length</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(part, index) in reading.parts" :key="index">
              <td class="to-right figure">{{ part.quantity }}</td>
              <td>
                {{ part.name }}
                <span v-if="part.later" class="quiet small">{{ part.later }}: not planned yet</span>
                <span v-for="warning in part.warnings" :key="warning" class="quiet small">{{
                  warning
                }}</span>
              </td>
              <td>
                {{ part.stock }}
                <span v-if="part.section" class="quiet"
                  ><SectionText :section="part.section"
                /></span>
              </td>
              <td class="to-right figure"><LengthText :length="part.length" /></td>
            </tr>
          </tbody>
        </table>
        <v-checkbox
          v-if="reading?.parts.length && project.parts.length"
          v-model="instead"
          :label="`Instead of the ${counted(project.parts.length, 'part')} there now: those in both keep their letters`"
          hide-details
          class="gap-above"
        />
      </v-card-text>
      <v-card-actions>
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
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.small {
  display: block;
  font-size: var(--text-small);
}
</style>
