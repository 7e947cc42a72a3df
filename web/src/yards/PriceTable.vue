<script setup lang="ts">
import { ref } from 'vue'
import { api, type PriceLine, type Yard } from '../api/client'
import { day } from '../shared/dates'
import EditableCell from '../shared/EditableCell.vue'
import EffectOfSize from '../shared/EffectOfSize.vue'
import KindSwatch from '../shared/KindSwatch.vue'
import LengthText from '../shared/LengthText.vue'
import { useSizedCells } from '../shared/useSizedCells'
import PriceHistory from './PriceHistory.vue'
import type { YardInHand } from './useYard'

/** The price lines of a yard, each cell of which can be typed over. */
const props = defineProps<{ yard: Yard; held: YardInHand }>()
const SIZES = ['thickness', 'width']
const history = ref<PriceLine>()
const cell = useSizedCells<PriceLine>({
  name: props.yard.id,
  called: (line) => `${line.stock} ${line.named_length}`,
  isSize: (field) => SIZES.includes(field),
  ask: ({ id: line_id }, body) =>
    api.POST('/api/yards/{yard_id}/lines/{line_id}/effect', {
      params: { path: { yard_id: props.yard.id, line_id } },
      body,
    }),
  write: (line, typed) => props.held.writeLine(line.id, typed),
})
</script>

<template>
  <div class="scroll" tabindex="0" role="region" aria-label="Price list">
    <table class="ruled">
      <thead>
        <tr>
          <th>stock</th>
          <th>real size</th>
          <th>length</th>
          <th>really</th>
          <th class="to-right">price</th>
          <th>per</th>
          <th class="to-right">a piece</th>
          <th class="to-right">in stock</th>
          <th>dated</th>
          <th><span class="said-only">history, remove</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="line in yard.lines" :key="line.id">
          <td>
            <div class="stock">
              <KindSwatch :kind="line.kind" />
              <EditableCell v-bind="cell(line, 'stock', 'Stock')" class="called" />
            </div>
          </td>
          <td>
            <div class="size">
              <template v-if="line.section">
                <EditableCell
                  v-bind="cell(line, 'thickness', 'Real thickness')"
                  takes-length
                  class="narrow"
                >
                  <LengthText :length="line.section.thickness" bare />
                </EditableCell>
                ×
                <EditableCell
                  v-bind="cell(line, 'width', 'Real width')"
                  takes-length
                  class="narrow"
                >
                  <LengthText :length="line.section.width" bare />
                </EditableCell>
              </template>
              <abbr v-if="line.section_is_own" title="this yard's own section">yard</abbr>
            </div>
          </td>
          <td><EditableCell v-bind="cell(line, 'length', 'Length')" class="figure" /></td>
          <td>
            <EditableCell v-bind="cell(line, 'actual', 'Real length')" class="quiet">
              <LengthText :length="line.real_length" />
            </EditableCell>
          </td>
          <td><EditableCell v-bind="cell(line, 'price', 'Price')" right class="figure" /></td>
          <td><EditableCell v-bind="cell(line, 'per', 'Priced per')" /></td>
          <td class="to-right figure">{{ line.piece_price ?? 'no price' }}</td>
          <td>
            <EditableCell v-bind="cell(line, 'available', 'In stock')" right>{{
              line.available || 'plenty'
            }}</EditableCell>
          </td>
          <td>
            <EditableCell v-bind="cell(line, 'date', 'Date')" class="dated">{{
              line.date && day(line.date)
            }}</EditableCell>
            <span v-if="line.is_old" class="old">old price</span>
          </td>
          <td class="to-right acts">
            <v-btn
              variant="text"
              size="small"
              :aria-label="`Price history of ${line.stock} ${line.named_length}`"
              @click="history = line"
              >History</v-btn
            >
            <v-btn
              variant="text"
              size="small"
              :aria-label="`Remove ${line.stock} ${line.named_length}`"
              @click="held.removeLines([line.id])"
              >Remove</v-btn
            >
          </td>
        </tr>
      </tbody>
    </table>
    <PriceHistory v-model="history" :yard="yard.id" />
    <EffectOfSize ref="effect" />
  </div>
</template>

<style scoped>
table {
  min-width: 900px;
}

.stock {
  display: flex;
  align-items: center;
  min-width: 150px;
}

.stock :deep(.cell) {
  flex: 1;
}

.size {
  display: flex;
  align-items: center;
  gap: 3px;
  white-space: nowrap;
}

.narrow {
  width: 46px;
}

.dated {
  min-width: 92px;
}

.old {
  display: block;
  font-size: var(--text-fine);
  color: rgb(var(--v-theme-error));
  padding-left: 2px;
}

.acts {
  white-space: nowrap;
}
</style>
