<script setup lang="ts">
import { computed, ref, useTemplateRef, watch } from 'vue'
import { type Project, type ProjectPatch, SETTINGS, useFaults } from '../api'
import { FormDialog } from '../shared'
import type { ProjectOnDesk } from './useProject'
import YardChoice from './YardChoice.vue'

type Setting = (typeof SETTINGS)[number]
type Form = Record<Setting['name'] | 'name' | 'yard', string | boolean>

/** The settings of a project, or, where a group is named, those alone. */
const props = defineProps<{
  project: Project
  desk: Pick<ProjectOnDesk, 'changeSettings'>
  only?: 'Days'
}>()
const open = defineModel<boolean>({ required: true })

const ELSEWHERE = ['Days']
const GROUPS = [...new Set(SETTINGS.map((one) => one.group))]
  .filter((name) => (props.only ? name === props.only : !ELSEWHERE.includes(name)))
  .map((name) => ({ name, settings: SETTINGS.filter((one) => one.group === name) }))

function typedOf(name: Setting['name']): string | boolean {
  const value = props.project[name]
  if (typeof value === 'object') return value.typed
  return typeof value === 'number' ? String(value) : value
}

function asTyped(): Form {
  const settings = SETTINGS.map((one) => [one.name, typedOf(one.name)])
  const { name, yard } = props.project
  return { ...(Object.fromEntries(settings) as Form), name, yard: yard?.id ?? '' }
}

const form = ref(asTyped())
const faults = useFaults('name')
const busy = ref(false)
const yards = useTemplateRef('yards')

/** What may be chosen: a way of writing lengths goes with its unit. */
function choices(setting: Setting) {
  if (setting.name !== 'notation') return [...setting.choices]
  const metric = form.value.unit === 'mm'
  return setting.choices.filter((one) => (one.value === 'mm') === metric)
}

const LONG_TITLE = 24

/** Whether its words need more room than a number does. */
function isWide(setting: Setting): boolean {
  return setting.choices.some((one) => one.title.length > LONG_TITLE)
}

watch(open, (now) => {
  if (now) {
    form.value = asTyped()
    faults.clear()
  }
})

function patch(): ProjectPatch {
  const before = asTyped()
  const now = form.value
  const changed: Record<string, string | number | boolean> = {}
  for (const name of Object.keys(before) as (keyof Form)[])
    if (now[name] !== before[name])
      changed[name] = name === 'copies' ? Number(now[name]) : now[name]
  if ('unit' in changed)
    for (const { name, isLength } of SETTINGS)
      if (name === 'notation' || (isLength && now[name] === before[name])) delete changed[name]
  return changed as ProjectPatch
}

const isYardMade = computed(() => Boolean(yards.value?.[0]?.making))
const isChanged = computed(
  () => open.value && (isYardMade.value || Object.keys(patch()).length > 0),
)

async function save() {
  busy.value = true
  if (await isSaved()) open.value = false
  busy.value = false
}

async function isSaved(): Promise<boolean> {
  if (yards.value?.[0] && !(await yards.value[0].settle())) return false
  const changed = patch()
  if (!Object.keys(changed).length) return true
  return faults.settle(await props.desk.changeSettings(changed))
}
</script>

<template>
  <FormDialog
    v-model="open"
    :title="only ? 'When there is time for it' : 'How this project is measured, sawn and bought'"
    :width="760"
    :busy="busy"
    :changed="isChanged"
    @save="save"
  >
    <template v-for="group in GROUPS" :key="group.name">
      <h3 v-if="group.name && !only">{{ group.name }}</h3>
      <p v-if="group.name === 'At the saw'" class="quiet gap-below">
        What your saws can do is said once for all projects, at
        <router-link v-if="!Object.keys(patch()).length" to="/tools">Tools</router-link
        ><template v-else>Tools, in the workshop</template>.
      </p>
      <div class="form">
        <template v-if="!group.name">
          <v-text-field
            v-model="form.name"
            label="Name"
            class="wide"
            :error-messages="faults.at('name')"
          />
          <YardChoice
            ref="yards"
            :model-value="String(form.yard)"
            label="Yard"
            none="none: standard lengths, no prices"
            class="wide"
            @update:model-value="(yard: string) => (form.yard = yard)"
          />
        </template>
        <template v-for="setting in group.settings" :key="setting.name">
          <v-checkbox
            v-if="setting.kind === 'flag'"
            v-model="form[setting.name]"
            :label="setting.heading"
            class="wide"
          />
          <v-select
            v-else-if="setting.kind === 'choice'"
            v-model="form[setting.name]"
            :label="setting.heading"
            :class="{ wide: isWide(setting) }"
            :items="choices(setting)"
            :disabled="setting.name === 'notation' && form.unit !== project.unit"
            :error-messages="faults.at(setting.name)"
          />
          <v-text-field
            v-else
            v-model="form[setting.name]"
            :label="setting.heading"
            :hint="setting.help"
            :persistent-hint="Boolean(setting.help)"
            :data-takes="setting.isLength ? 'length' : undefined"
            :inputmode="setting.kind === 'whole' ? 'numeric' : undefined"
            :error-messages="faults.at(setting.name)"
            :class="{ wide: only && setting.help.length > LONG_TITLE }"
          />
        </template>
      </div>
    </template>
    <p v-if="!only" class="quiet gap-above">
      Another unit changes what a bare number means from now on; no part changes its size.
    </p>
  </FormDialog>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  align-items: start;
  gap: 14px;
  padding-top: 4px;
}

.wide {
  grid-column: span 2;
}

h3 {
  font-size: var(--text-plain);
  margin: 18px 0 8px;
  padding-top: 10px;
  border-top: 1px solid rgb(var(--v-theme-rule));
}

@media (max-width: 600px) {
  .form {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
