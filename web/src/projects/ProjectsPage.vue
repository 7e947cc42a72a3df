<script setup lang="ts">
import { v4 as newId } from 'uuid'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, formOf, outcomeOf, type Project, useFaults } from '../api'
import { FaultList, FilePick } from '../imports'
import { day, RuledTable } from '../shared'
import DeletedProjects from './DeletedProjects.vue'
import NewProject from './NewProject.vue'
import { useProjects } from './useProjects'

const COLUMNS = [
  { name: 'name', title: 'project' },
  { name: 'yard', title: 'yard' },
  { name: 'parts', title: 'parts', right: true },
  { name: 'boards', title: 'boards', right: true, look: 'figure' },
  { name: 'cost', title: 'cost', right: true, look: 'figure' },
  { name: 'plan', title: 'plan' },
  { name: 'changed', title: 'changed', look: 'quiet' },
  { name: 'acts', title: 'delete', unseen: true, right: true },
]
const router = useRouter()
const projects = useProjects()
const { rows, isError, fault } = projects
const fileFaults = useFaults('file')
const justDeleted = ref<{ id: string; name: string }>()

async function open(project: Project) {
  projects.take(project)
  await router.push(`/projects/${project.id}`)
}

async function importFile(file: File | undefined) {
  if (!file) return
  const outcome = await outcomeOf<Project>(
    api.POST('/api/projects/import', {
      body: { id: newId(), file: '' },
      bodySerializer: (body) => formOf({ id: body.id, file }),
    }),
  )
  if (fileFaults.settle(outcome)) await open(outcome.data)
}

async function remove(row: { id: string; name: string }) {
  await projects.remove(row.id)
  if (!fault.value) justDeleted.value = row
}

async function bringBack(id: string) {
  await projects.bringBack(id)
  justDeleted.value = undefined
}
</script>

<template>
  <div class="page">
    <h1>Projects</h1>
    <p class="told" role="status">
      <template v-if="justDeleted">
        {{ justDeleted.name }} is deleted.
        <v-btn size="small" @click="bringBack(justDeleted.id)">Bring it back</v-btn>
      </template>
    </p>
    <p v-if="fault" role="alert" class="text-error">{{ fault }}</p>
    <div v-if="isError && !rows" role="alert">
      <p>The projects could not be loaded.</p>
      <v-btn @click="projects.refetch()">Try again</v-btn>
    </div>
    <RuledTable
      v-else-if="rows?.length"
      called="Projects"
      :columns="COLUMNS"
      :rows="rows"
      :key-of="(row) => row.id"
    >
      <template #name="{ row }">
        <RouterLink :to="`/projects/${row.id}`" class="called link">{{ row.name }}</RouterLink>
        <span class="quiet small">
          {{ row.unit === 'mm' ? 'mm' : 'inches'
          }}{{ row.copies > 1 ? `, build ${row.copies}` : '' }}
        </span>
      </template>
      <template #yard="{ row }">{{ row.yard || 'none' }}</template>
      <template #boards="{ row }">{{ row.boards ?? '–' }}</template>
      <template #cost="{ row }">{{ row.cost ?? '–' }}</template>
      <template #plan="{ row }">
        <span v-if="row.is_cut" class="quiet">cut: what it cost</span>
        <span v-else-if="row.proven" class="proven">proven least</span>
        <span v-else class="quiet">{{ row.boards === null ? 'not made yet' : 'open' }}</span>
      </template>
      <template #changed="{ row }">{{ day(row.updated) }}</template>
      <template #acts="{ row }">
        <v-btn variant="text" size="small" :aria-label="`Delete ${row.name}`" @click="remove(row)">
          Delete
        </v-btn>
      </template>
    </RuledTable>
    <p v-else-if="rows" class="quiet">
      Nothing here yet. Name what you want to build; the parts come next, one line each.
    </p>

    <!-- Where the list is still on its way all of it would jump from under the finger. -->
    <template v-if="rows || isError">
      <h2>New project</h2>
      <NewProject @made="open" />

      <h2>Bring a project</h2>
      <p class="quiet">A project file (JSON) that was exported here.</p>
      <FilePick
        label="Project file"
        accept=".json,application/json"
        :file="undefined"
        @picked="importFile"
      />
      <FaultList :problems="fileFaults.problems.value" />

      <DeletedProjects
        :deleted="projects.deleted.value ?? []"
        @bring-back="bringBack"
        @remove="projects.removeForGood"
      />
    </template>
  </div>
</template>

<style scoped>
.told {
  min-height: 1.4em;
}

.link {
  margin-right: 8px;
}

.small {
  white-space: nowrap;
}

.proven {
  color: rgb(var(--v-theme-proven));
  font-weight: 600;
}
</style>
