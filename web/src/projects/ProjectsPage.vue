<script setup lang="ts">
import { v4 as newId } from 'uuid'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { useSessionStorage } from '@vueuse/core'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, formOf, outcomeOf, type Project } from '../api/client'
import { useFaults } from '../api/faults'
import FaultList from '../imports/FaultList.vue'

const router = useRouter()
const queries = useQueryClient()
const {
  data: rows,
  isError,
  refetch,
} = useQuery({
  queryKey: ['projects'],
  queryFn: async () => {
    const { data } = await api.GET('/api/overview')
    if (!data) throw new Error('no projects')
    return data
  },
})
const { data: yards } = useQuery({
  queryKey: ['yards'],
  queryFn: async () => (await api.GET('/api/yards')).data ?? [],
})

const draft = useSessionStorage('grain-tally:new-project', { name: '', unit: 'in', yard: '' })
const faults = useFaults('name')
const fileFaults = useFaults('file')
const removing = ref<{ id: string; name: string }>()
const busy = ref(false)

async function open(project: Project) {
  queries.setQueryData(['project', project.id], project)
  void queries.invalidateQueries({ queryKey: ['projects'] })
  await router.push(`/projects/${project.id}`)
}

async function create() {
  busy.value = true
  const { name, unit, yard } = draft.value
  const outcome = await outcomeOf<Project>(
    api.POST('/api/projects', {
      body: { id: newId(), name, unit, yard: yard || null },
    }),
  )
  busy.value = false
  if (faults.settle(outcome)) {
    draft.value = { name: '', unit, yard }
    await open(outcome.data)
  }
}

async function importFile(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  const outcome = await outcomeOf<Project>(
    api.POST('/api/projects/import', {
      body: { id: newId(), file: '' },
      bodySerializer: (body) => formOf({ id: body.id, file }),
    }),
  )
  input.value = ''
  if (fileFaults.settle(outcome)) await open(outcome.data)
}

async function remove() {
  if (!removing.value) return
  await outcomeOf(
    api.DELETE('/api/projects/{project_id}', {
      params: { path: { project_id: removing.value.id } },
    }),
  )
  removing.value = undefined
  await refetch()
}

const day = new Intl.DateTimeFormat('en', { day: 'numeric', month: 'short', year: 'numeric' })
</script>

<template>
  <div class="page">
    <h1>Projects</h1>
    <div v-if="isError" role="alert">
      <p>The projects could not be loaded.</p>
      <v-btn @click="refetch()">Try again</v-btn>
    </div>
    <div v-else-if="rows?.length" class="scroll">
      <table class="ruled">
        <thead>
          <tr>
            <th>project</th>
            <th>yard</th>
            <th class="to-right">parts</th>
            <th class="to-right">boards</th>
            <th class="to-right">cost</th>
            <th>plan</th>
            <th>changed</th>
            <th><span class="said-only">delete</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.id">
            <td>
              <RouterLink :to="`/projects/${row.id}`" class="called link">{{
                row.name
              }}</RouterLink>
              <span class="quiet small">
                {{ row.unit === 'mm' ? 'mm' : 'inches'
                }}{{ row.copies > 1 ? `, build ${row.copies}` : '' }}
              </span>
            </td>
            <td>{{ row.yard || 'none' }}</td>
            <td class="to-right">{{ row.parts }}</td>
            <td class="to-right figure">{{ row.boards ?? '–' }}</td>
            <td class="to-right figure">{{ row.cost ?? '–' }}</td>
            <td>
              <span v-if="row.proven" class="proven">proven least</span>
              <span v-else class="quiet">{{ row.boards === null ? 'not made yet' : 'open' }}</span>
            </td>
            <td class="quiet">{{ day.format(new Date(row.updated)) }}</td>
            <td class="to-right">
              <v-btn
                variant="text"
                size="small"
                :aria-label="`Delete ${row.name}`"
                @click="removing = row"
              >
                Delete
              </v-btn>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-else-if="rows" class="quiet">
      Nothing here yet. Name what you want to build; the parts come next, one line each.
    </p>

    <h2>New project</h2>
    <form class="new" @submit.prevent="create">
      <v-text-field
        v-model="draft.name"
        label="What do you build?"
        :error-messages="faults.at('name')"
        maxlength="100"
      />
      <v-select
        v-model="draft.unit"
        label="Measured in"
        :items="[
          { title: 'inches', value: 'in' },
          { title: 'millimetres', value: 'mm' },
        ]"
      />
      <v-select
        v-model="draft.yard"
        label="Bought at"
        :items="[
          { title: 'no yard yet', value: '' },
          ...(yards ?? []).map((y) => ({ title: y.name, value: y.id })),
        ]"
      />
      <v-btn type="submit" color="primary" variant="flat" :loading="busy">Start</v-btn>
    </form>

    <h2>Bring a project</h2>
    <label class="file">
      <span>A project file (JSON) that was exported here:</span>
      <input type="file" accept=".json,application/json" @change="importFile" />
    </label>
    <FaultList :problems="fileFaults.problems.value" />

    <v-dialog
      :model-value="Boolean(removing)"
      max-width="420"
      @update:model-value="removing = undefined"
    >
      <v-card :title="`Delete ${removing?.name}?`">
        <v-card-text
          >Its parts, plans and whole history go with it. This cannot be undone.</v-card-text
        >
        <v-card-actions>
          <v-btn @click="removing = undefined">Keep it</v-btn>
          <v-btn color="error" @click="remove">Delete</v-btn>
        </v-card-actions>
      </v-card>
    </v-dialog>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}

.link {
  color: inherit;
  margin-right: 8px;
}

.small {
  font-size: 0.8rem;
  white-space: nowrap;
}

.proven {
  color: rgb(var(--v-theme-proven));
  font-weight: 600;
}

.new {
  display: grid;
  grid-template-columns: 2fr 1fr 1.4fr auto;
  gap: 12px;
  align-items: start;
}

.file {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
}

@media (max-width: 760px) {
  .new {
    grid-template-columns: 1fr;
  }
}
</style>
