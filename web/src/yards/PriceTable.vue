<script setup lang="ts">
import { ref } from 'vue'
import { api, type PriceLine, type Yard } from '../api'
import {
  day,
  EditableCell,
  EffectOfSize,
  KindSwatch,
  LengthText,
  RuledTable,
  SizeCells,
  useSizedCells,
} from '../shared'
import PriceHistory from './PriceHistory.vue'
import type { YardInHand } from './useYard'

/** The price lines of a yard, each cell of which can be typed over. */
const props = defineProps<{ yard: Yard; held: YardInHand }>()
const SIZES = ['thickness', 'width']
const COLUMNS = [
  { name: 'stock', title: 'stock' },
  { name: 'section', title: 'real size' },
  { name: 'length', title: 'length' },
  { name: 'actual', title: 'really' },
  { name: 'price', title: 'price', right: true },
  { name: 'per', title: 'per' },
  { name: 'piece', title: 'a piece', right: true, look: 'figure' },
  { name: 'available', title: 'in stock', right: true },
  { name: 'date', title: 'dated' },
  { name: 'acts', title: 'history, remove', unseen: true, right: true, look: 'acts' },
]
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
  <RuledTable
    called="Price list"
    :columns="COLUMNS"
    :rows="yard.lines"
    :key-of="(line) => line.id"
    :at-least="900"
  >
    <template #stock="{ row }">
      <div class="stock">
        <KindSwatch :kind="row.kind" />
        <EditableCell v-bind="cell(row, 'stock', 'Stock')" class="called" />
      </div>
    </template>
    <template #section="{ row }">
      <SizeCells
        v-if="row.section"
        :section="row.section"
        :thickness="cell(row, 'thickness', 'Real thickness')"
        :width="cell(row, 'width', 'Real width')"
      >
        <abbr v-if="row.section_is_own" title="this yard's own section">yard</abbr>
      </SizeCells>
    </template>
    <template #length="{ row }">
      <EditableCell v-bind="cell(row, 'length', 'Length')" class="figure" />
    </template>
    <template #actual="{ row }">
      <EditableCell v-bind="cell(row, 'actual', 'Real length')" class="quiet">
        <LengthText :length="row.real_length" />
      </EditableCell>
    </template>
    <template #price="{ row }">
      <EditableCell v-bind="cell(row, 'price', 'Price')" right class="figure" />
    </template>
    <template #per="{ row }"><EditableCell v-bind="cell(row, 'per', 'Priced per')" /></template>
    <template #piece="{ row }">{{ row.piece_price ?? 'no price' }}</template>
    <template #available="{ row }">
      <EditableCell v-bind="cell(row, 'available', 'In stock')" right>{{
        row.available || 'plenty'
      }}</EditableCell>
    </template>
    <template #date="{ row }">
      <EditableCell v-bind="cell(row, 'date', 'Date')" class="dated">{{
        row.date && day(row.date)
      }}</EditableCell>
      <span v-if="row.is_old" class="old">old price</span>
    </template>
    <template #acts="{ row }">
      <v-btn
        variant="text"
        size="small"
        :aria-label="`Price history of ${row.stock} ${row.named_length}`"
        @click="history = row"
        >History</v-btn
      >
      <v-btn
        variant="text"
        size="small"
        :aria-label="`Remove ${row.stock} ${row.named_length}`"
        @click="held.removeLines([row.id])"
        >Remove</v-btn
      >
    </template>
  </RuledTable>
  <PriceHistory v-model="history" :yard="yard.id" />
  <EffectOfSize ref="effect" />
</template>

<style scoped>
.stock {
  display: flex;
  align-items: center;
  min-width: 150px;
}

.stock :deep(.cell) {
  flex: 1;
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

:deep(.acts) {
  white-space: nowrap;
}
</style>
