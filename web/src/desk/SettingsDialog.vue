<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, type Project, type ProjectPatch } from '../api/client'
import { useFaults } from '../api/faults'
import FormDialog from '../shared/FormDialog.vue'
import type { ProjectOnDesk } from './useProject'

const props = defineProps<{ project: Project; desk: ProjectOnDesk }>()
const open = defineModel<boolean>({ required: true })

const { data: yards } = useQuery({
  queryKey: ['yards'],
  queryFn: async () => (await api.GET('/api/yards')).data ?? [],
})

function asTyped() {
  const { project } = props
  return {
    name: project.name,
    unit: project.unit,
    notation: project.notation,
    kerf: project.kerf.typed,
    trim_start: project.trim_start.typed,
    trim_end: project.trim_end.typed,
    copies: String(project.copies),
    yard: project.yard?.id ?? '',
    rack: project.rack,
    keep_width: project.keep_width.typed,
    saw_crosscut: project.saw_crosscut.typed,
    saw_rip_depth: project.saw_rip_depth.typed,
    saw_rip_width: project.saw_rip_width.typed,
    saw_resaw_depth: project.saw_resaw_depth.typed,
    saw_tilt: project.saw_tilt,
    saw_miter: project.saw_miter,
    resaw: project.resaw,
    own_stock: project.own_stock,
    rip: project.rip,
    order: project.order,
    share_angled_cuts: project.share_angled_cuts,
    keep_from: project.keep_from.typed,
    keep_from_of: project.keep_from_of,
    budget: project.budget,
    sells_for: project.sells_for,
    extra_length: project.extra_length.typed,
    extra_width: project.extra_width.typed,
    extra_thickness: project.extra_thickness.typed,
    eased: project.eased.typed,
    spare: project.spare,
  }
}

const LENGTHS = [
  'kerf',
  'trim_start',
  'trim_end',
  'keep_from',
  'extra_length',
  'extra_width',
  'extra_thickness',
  'eased',
  'keep_width',
  'saw_crosscut',
  'saw_rip_depth',
  'saw_rip_width',
  'saw_resaw_depth',
] as const

/** What the saws can do: a limit each, nothing where there is none. */
const SAWS = [
  { field: 'saw_crosscut', label: 'Crosscuts up to', hint: 'the widest board' },
  { field: 'saw_rip_depth', label: 'Rips up to', hint: 'thick, in one pass or two' },
  { field: 'saw_resaw_depth', label: 'Resaws up to', hint: 'wide, in one pass or two' },
  { field: 'saw_rip_width', label: 'Fence up to', hint: 'from the blade' },
  { field: 'saw_tilt', label: 'Blade tilts up to', hint: 'degrees' },
  { field: 'saw_miter', label: 'Miter turns up to', hint: 'degrees' },
] as const

const form = ref(asTyped())
const faults = useFaults('name')
const busy = ref(false)
const notations = computed(() =>
  form.value.unit === 'mm'
    ? [{ title: 'millimetres', value: 'mm' }]
    : [
        { title: 'fractions to 1/16', value: '1/16' },
        { title: 'fractions to 1/32', value: '1/32' },
        { title: 'fractions to 1/64', value: '1/64' },
        { title: 'decimal inches', value: 'decimal' },
        { title: 'feet and inches', value: 'feet' },
      ],
)

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
  for (const name of Object.keys(before) as (keyof typeof before)[])
    if (now[name] !== before[name])
      changed[name] = name === 'copies' ? Number(now[name]) : now[name]
  if ('unit' in changed)
    for (const name of ['notation', ...LENGTHS] as const)
      if (now[name] === before[name] || name === 'notation') delete changed[name]
  return changed as ProjectPatch
}

async function save() {
  const changed = patch()
  if (!Object.keys(changed).length) {
    open.value = false
    return
  }
  busy.value = true
  const outcome = await props.desk.changeSettings(changed)
  busy.value = false
  if (faults.settle(outcome)) open.value = false
}
</script>

<template>
  <FormDialog
    v-model="open"
    title="How this project is measured, sawn and bought"
    :width="760"
    :busy="busy"
    @save="save"
  >
    <div class="form">
      <v-text-field
        v-model="form.name"
        label="Name"
        class="wide"
        :error-messages="faults.at('name')"
      />
      <v-text-field
        v-model="form.copies"
        label="Build how many"
        inputmode="numeric"
        :error-messages="faults.at('copies')"
      />
      <v-select
        v-model="form.yard"
        label="Yard"
        class="wide"
        :items="[
          { title: 'none: standard lengths, no prices', value: '' },
          ...(yards ?? []).map((y) => ({ title: y.name, value: y.id })),
        ]"
      />
      <v-text-field
        v-model="form.spare"
        label="Spare boards of each size"
        hint="against culls: 1, or 10 %"
        persistent-hint
        :error-messages="faults.at('spare')"
      />
      <v-text-field
        v-model="form.budget"
        label="Budget for all of it"
        inputmode="decimal"
        :error-messages="faults.at('budget')"
      />
      <v-text-field
        v-model="form.sells_for"
        label="One could sell for"
        inputmode="decimal"
        :error-messages="faults.at('sells_for')"
      />
      <v-select
        v-model="form.rack"
        label="Boards from the rack"
        class="wide"
        :items="[
          { title: 'leave them alone', value: 'never' },
          { title: 'use them when that saves buying', value: 'saving' },
          { title: 'use them first, always', value: 'always' },
        ]"
      />
      <v-text-field
        v-model="form.keep_from"
        data-takes="length"
        label="Keep leftovers from"
        :error-messages="faults.at('keep_from')"
      />
      <v-text-field
        v-model="form.keep_width"
        data-takes="length"
        label="Keep strips, wide from"
        :error-messages="faults.at('keep_width')"
      />
      <v-text-field
        v-model="form.keep_from_of"
        label="Of some stock from"
        class="wide"
        hint="such as 1x4 cedar 36, 2x2 8"
        persistent-hint
        :error-messages="faults.at('keep_from_of')"
      />
    </div>
    <h3>At the saw</h3>
    <div class="form">
      <v-text-field
        v-model="form.kerf"
        label="Kerf"
        data-takes="length"
        :error-messages="faults.at('kerf')"
      />
      <v-text-field
        v-model="form.trim_start"
        data-takes="length"
        label="Trim, first end"
        :error-messages="faults.at('trim_start')"
      />
      <v-text-field
        v-model="form.trim_end"
        data-takes="length"
        label="Trim, last end"
        :error-messages="faults.at('trim_end')"
      />
      <v-checkbox
        v-model="form.share_angled_cuts"
        label="Neighbours with the same end angle share one cut"
        class="wide"
      />
      <v-text-field
        v-model="form.extra_length"
        data-takes="length"
        label="Add to every length"
        hint="trimmed after machining, or on site"
        persistent-hint
        :error-messages="faults.at('extra_length')"
      />
      <v-checkbox v-model="form.rip" label="Parts may be ripped from other sizes" class="wide" />
      <v-checkbox v-model="form.resaw" label="… and sawn thinner" />
      <v-checkbox
        v-model="form.own_stock"
        label="… but only from the stock they name"
        class="wide"
      />
      <v-select
        v-model="form.order"
        label="Order of work on a board"
        :items="[
          { title: 'whichever wastes least', value: 'either' },
          { title: 'crosscut first, then rip', value: 'crosscut-first' },
          { title: 'rip first, full length', value: 'rip-first' },
        ]"
      />
      <v-text-field
        v-model="form.extra_width"
        data-takes="length"
        label="Add to a sawn width"
        hint="planed off"
        persistent-hint
        :error-messages="faults.at('extra_width')"
      />
      <v-text-field
        v-model="form.extra_thickness"
        data-takes="length"
        label="Add to a sawn thickness"
        hint="planed off"
        persistent-hint
        :error-messages="faults.at('extra_thickness')"
      />
      <v-text-field
        v-model="form.eased"
        data-takes="length"
        label="Rip off rounded edges"
        hint="each edge, kerf included"
        persistent-hint
        :error-messages="faults.at('eased')"
      />
    </div>
    <h3>What your saws can do</h3>
    <p class="quiet pb-2">No plan asks for more. Empty means no limit.</p>
    <div class="form">
      <v-text-field
        v-for="{ field, label, hint } in SAWS"
        :key="field"
        v-model="form[field]"
        :data-takes="/tilt|miter/.test(field) ? undefined : 'length'"
        :label="label"
        :hint="hint"
        persistent-hint
        :error-messages="faults.at(field)"
      />
    </div>
    <h3>On paper and screen</h3>
    <div class="form">
      <v-select
        v-model="form.unit"
        label="Bare numbers are"
        :items="[
          { title: 'inches', value: 'in' },
          { title: 'millimetres', value: 'mm' },
        ]"
        :error-messages="faults.at('unit')"
      />
      <v-select
        v-model="form.notation"
        label="Lengths shown as"
        :items="notations"
        :disabled="form.unit !== project.unit"
        :error-messages="faults.at('notation')"
      />
    </div>
    <p class="quiet pt-3">
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
  font-size: 0.95rem;
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
