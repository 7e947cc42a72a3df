<script setup lang="ts">
import { api, type OwnMaterial } from '../api'
import {
  EditableCell,
  EffectOfSize,
  KindSwatch,
  RuledTable,
  SizeCells,
  useSizedCells,
} from '../shared'
import type { MaterialsInHand } from './useMaterials'

/** A builder's own materials, the sizes and cautions of which can be typed over. */
const props = defineProps<{ own: OwnMaterial[]; held: MaterialsInHand }>()
const SIZES = ['thickness', 'width']
const COLUMNS = [
  { name: 'name', title: 'name', look: 'called' },
  { name: 'form', title: 'form' },
  { name: 'section', title: 'real size' },
  { name: 'density', title: 'kg/m³', right: true },
  { name: 'exposure', title: 'may stand' },
  { name: 'caution', title: 'caution', look: 'wide-cell' },
  { name: 'acts', title: 'put away', unseen: true, right: true },
]
const cell = useSizedCells<OwnMaterial>({
  name: 'materials',
  called: (row) => row.name,
  isSize: (field) => SIZES.includes(field),
  ask: ({ id: material_id }, body) =>
    api.POST('/api/materials/{material_id}/effect', { params: { path: { material_id } }, body }),
  write: (row, typed) => props.held.write(row.id, typed),
})
</script>

<template>
  <RuledTable
    called="Your own materials"
    :columns="COLUMNS"
    :rows="own"
    :key-of="(one) => one.id"
    :at-least="760"
  >
    <template #name="{ row }">
      <KindSwatch :kind="row.form === 'sheet' ? 'sheet' : row.kind" />{{ row.name }}
    </template>
    <template #section="{ row }">
      <SizeCells
        :section="row.section"
        :thickness="cell(row, 'thickness', row.section.round ? 'Diameter' : 'Thickness')"
        :width="cell(row, 'width', 'Width')"
      />
    </template>
    <template #density="{ row }">
      <EditableCell v-bind="cell(row, 'density', 'Density')" right class="figure narrow">{{
        row.kilograms_per_m3
      }}</EditableCell>
    </template>
    <template #caution="{ row }">
      <EditableCell v-bind="cell(row, 'caution', 'Caution')" />
    </template>
    <template #acts="{ row }">
      <v-btn
        variant="text"
        size="small"
        :aria-label="`Put away ${row.name}`"
        @click="held.putAway(row.id)"
        >Put away</v-btn
      >
    </template>
  </RuledTable>
  <EffectOfSize ref="effect" />
</template>

<style scoped>
.narrow {
  width: 56px;
}

:deep(.wide-cell) {
  min-width: 200px;
}
</style>
