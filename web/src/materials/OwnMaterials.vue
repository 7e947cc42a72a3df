<script setup lang="ts">
import { api, type OwnMaterial } from '../api/client'
import EditableCell from '../shared/EditableCell.vue'
import EffectOfSize from '../shared/EffectOfSize.vue'
import KindSwatch from '../shared/KindSwatch.vue'
import LengthText from '../shared/LengthText.vue'
import { useSizedCells } from '../shared/useSizedCells'
import type { MaterialsInHand } from './useMaterials'

/** A builder's own materials, the sizes and cautions of which can be typed over. */
const props = defineProps<{ own: OwnMaterial[]; held: MaterialsInHand }>()
const SIZES = ['thickness', 'width']
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
  <div class="scroll" tabindex="0" role="region" aria-label="Your own materials">
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
        <tr v-for="row in own" :key="row.id">
          <td class="called">
            <KindSwatch :kind="row.form === 'sheet' ? 'sheet' : row.kind" />{{ row.name }}
          </td>
          <td>{{ row.form }}</td>
          <td>
            <div class="size">
              <template v-if="row.form === 'round'">⌀</template>
              <EditableCell
                v-bind="cell(row, 'thickness', row.form === 'round' ? 'Diameter' : 'Thickness')"
                takes-length
                class="narrow"
                ><LengthText :length="row.section.thickness" bare
              /></EditableCell>
              <template v-if="row.form !== 'round'">
                ×
                <EditableCell v-bind="cell(row, 'width', 'Width')" takes-length class="narrow"
                  ><LengthText :length="row.section.width" bare
                /></EditableCell>
              </template>
            </div>
          </td>
          <td>
            <EditableCell v-bind="cell(row, 'density', 'Density')" right class="figure narrow">{{
              row.kilograms_per_m3
            }}</EditableCell>
          </td>
          <td>{{ row.exposure }}</td>
          <td class="wide-cell"><EditableCell v-bind="cell(row, 'caution', 'Caution')" /></td>
          <td class="to-right">
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
    <EffectOfSize ref="effect" />
  </div>
</template>

<style scoped>
table {
  min-width: 760px;
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
</style>
