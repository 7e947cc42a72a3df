<script setup lang="ts">
import { v4 as newId } from 'uuid'
import { useSessionStorage } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import { api, outcomeOf, type Effect, type MaterialFields, type OwnMaterial } from '../api/client'
import { useFaults } from '../api/faults'
import { useDrafts } from '../desk/useDrafts'
import EditableCell from '../shared/EditableCell.vue'
import EffectOfSize from '../shared/EffectOfSize.vue'
import LengthText from '../shared/LengthText.vue'
import { useMaterials } from './useMaterials'

type Field = keyof MaterialFields & keyof OwnMaterial

const held = useMaterials()
const { materials, isError, waiting, offline } = held
const { drafts, keep, drop } = useDrafts('materials')
const effect = useTemplateRef('effect')
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
const FORMS = [
  { title: 'board', value: 'board' },
  { title: 'sheet or panel', value: 'sheet' },
  { title: 'round: dowel, pipe', value: 'round' },
]
const KINDS = ['plain', 'treated', 'durable', 'composite']
const exposures = computed(() => materials.value?.exposures ?? [])

function bind(row: OwnMaterial, field: Field, label: string) {
  const key = `${row.id}.${field}`
  return {
    saved: row[field] as string,
    draft: drafts.value[key],
    label: `${label} of ${row.name}`,
    place: field,
    save: (text: string) => save(row, field, text),
    onKeep: (text: string) => keep(key, text),
    onDrop: () => drop(key),
  }
}

function save(row: OwnMaterial, field: Field, text: string) {
  const write = () => held.write(row.id, { [field]: text })
  if (field !== 'thickness' && field !== 'width') return write()
  const asked = outcomeOf<Effect[]>(
    api.POST('/api/materials/{material_id}/effect', {
      params: { path: { material_id: row.id } },
      body: { [field]: text },
    }),
  )
  return effect.value ? effect.value.apply(asked, write) : write()
}

async function add() {
  const outcome = await held.write(newId(), { ...fresh.value })
  if (faults.settle(outcome)) fresh.value = { ...empty }
}
</script>

<template>
  <div v-if="isError && !materials" class="page" role="alert">
    <h1>The materials could not be loaded</h1>
    <v-btn @click="held.refetch()">Try again</v-btn>
  </div>
  <div v-else-if="!materials" class="page quiet" role="status">Fetching materials …</div>
  <div v-else class="page">
    <Teleport defer to="#header-acts">
      <v-btn
        :disabled="!materials.undo"
        :title="materials.undo ?? undefined"
        @click="held.step('undo')"
        >Undo</v-btn
      >
      <v-btn
        :disabled="!materials.redo"
        :title="materials.redo ?? undefined"
        @click="held.step('redo')"
        >Redo</v-btn
      >
    </Teleport>
    <h1>Materials</h1>
    <p class="quiet lead">
      Woods and treatments by the words you put after a size, and materials of your own that the
      <RouterLink to="/sizes">size book</RouterLink> does not know: composite decking, salvaged
      beams, panels, dowels, pipes.
    </p>
    <p class="change" role="status">
      <template v-if="offline"
        ><strong class="text-error">No connection.</strong> What you typed is kept.</template
      >
      <template v-else-if="waiting">Saving …</template>
      <template v-else>{{ materials.change }}</template>
    </p>

    <h2>Your own</h2>
    <div
      v-if="materials.own.length"
      class="scroll"
      tabindex="0"
      role="region"
      aria-label="Your own materials"
    >
      <table class="ruled">
        <thead>
          <tr>
            <th>name</th>
            <th>form</th>
            <th>real size</th>
            <th class="to-right">kg/m³</th>
            <th>may stand</th>
            <th>caution</th>
            <th><span class="said-only">put away</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in materials.own" :key="row.id">
            <td class="called">
              <span
                class="swatch"
                :style="{
                  background: `rgb(var(--v-theme-${row.form === 'sheet' ? 'sheet' : row.kind}))`,
                }"
              ></span
              >{{ row.name }}
            </td>
            <td>{{ row.form }}</td>
            <td>
              <div class="size">
                <template v-if="row.form === 'round'">⌀</template>
                <EditableCell
                  v-bind="bind(row, 'thickness', row.form === 'round' ? 'Diameter' : 'Thickness')"
                  takes-length
                  class="narrow"
                  ><LengthText :length="row.section.thickness" bare
                /></EditableCell>
                <template v-if="row.form !== 'round'">
                  ×
                  <EditableCell v-bind="bind(row, 'width', 'Width')" takes-length class="narrow"
                    ><LengthText :length="row.section.width" bare
                  /></EditableCell>
                </template>
              </div>
            </td>
            <td>
              <EditableCell v-bind="bind(row, 'density', 'Density')" right class="figure narrow">{{
                row.kilograms_per_m3
              }}</EditableCell>
            </td>
            <td>{{ row.exposure }}</td>
            <td class="wide-cell"><EditableCell v-bind="bind(row, 'caution', 'Caution')" /></td>
            <td class="to-right acts-cell">
              <v-btn
                variant="text"
                size="small"
                :aria-label="`Put away ${row.name}`"
                @click="held.putAway(row.id)"
                >Put away</v-btn
              >
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-else class="quiet">None yet.</p>
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
        :label="fresh.form === 'round' ? 'Diameter' : 'Thickness'"
        data-takes="length"
        :error-messages="faults.at('thickness')"
      />
      <v-text-field
        v-if="fresh.form !== 'round'"
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
      <v-select
        v-if="fresh.form !== 'sheet'"
        v-model="fresh.kind"
        label="Drawn as"
        :items="KINDS"
      />
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

    <h2>In the book</h2>
    <div class="scroll" tabindex="0" role="region" aria-label="Woods and treatments">
      <table class="ruled">
        <thead>
          <tr>
            <th>word</th>
            <th>wood</th>
            <th class="to-right">lb/ft³</th>
            <th class="to-right">kg/m³</th>
            <th>may stand</th>
            <th>caution</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="wood in materials.woods" :key="wood.word">
            <td class="called">{{ wood.word }}</td>
            <td>{{ wood.name }}</td>
            <td class="to-right figure">{{ wood.pounds_per_foot3 }}</td>
            <td class="to-right figure">{{ wood.kilograms_per_m3 }}</td>
            <td>{{ wood.exposure }}</td>
            <td class="quiet">{{ wood.caution }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="quiet small">
      Air-dry at 12 % moisture, after the USDA Wood Handbook, rounded. A stock without a word is
      taken for spruce-pine-fir.
    </p>
    <EffectOfSize ref="effect" />
  </div>
</template>

<style scoped>
.lead {
  max-width: 46em;
}

.change {
  min-height: 1.4em;
  font-size: 0.86rem;
}

.scroll {
  overflow-x: auto;
}

table {
  min-width: 760px;
}

.swatch {
  display: inline-block;
  width: 13px;
  height: 13px;
  margin-right: 9px;
  border: 1px solid #17232a44;
  border-radius: 2px;
}

.size {
  display: flex;
  align-items: center;
  gap: 3px;
  white-space: nowrap;
}

.narrow {
  width: 56px;
}

.wide-cell {
  min-width: 200px;
}

.acts-cell {
  white-space: nowrap;
}

.small {
  font-size: 0.82rem;
}

.new {
  display: grid;
  grid-template-columns: repeat(6, 1fr);
  gap: 10px;
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
