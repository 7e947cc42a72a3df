<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, type Rack, type RackBoard, type RackFields } from '../api'
import {
  EditableCell,
  EffectOfSize,
  LengthText,
  RuledTable,
  SectionText,
  useSizedCells,
} from '../shared'
import type { RackInHand } from './useRack'

/** Boards on the rack, each with its measures beneath it when it is opened. */
const props = defineProps<{ rack: Rack; held: RackInHand; alone: string | undefined }>()
type Field = keyof RackFields & keyof RackBoard

const MEASURES: { field: Field; label: string; hint: string; isLength?: boolean }[] = [
  { field: 'thickness', label: 'Thickness', hint: 'as measured', isLength: true },
  { field: 'width', label: 'Width, marked end', hint: 'as measured', isLength: true },
  { field: 'width_middle', label: 'Width, middle', hint: 'as measured', isLength: true },
  { field: 'width_end', label: 'Width, far end', hint: 'as measured', isLength: true },
  { field: 'crook', label: 'Crook', hint: 'hollow of the curved edge', isLength: true },
  { field: 'bow', label: 'Bow', hint: 'hollow of the curved face', isLength: true },
  { field: 'cup', label: 'Cup', hint: 'hollow across the width', isLength: true },
  { field: 'twist', label: 'Twisted', hint: 'yes or no' },
  { field: 'flaws', label: 'Flaws', hint: 'from to, such as 30 to 34 1/2' },
  { field: 'note', label: 'Note', hint: 'for yourself' },
]
const COLUMNS = [
  { name: 'number', title: 'number', right: true, look: 'figure number' },
  { name: 'stock', title: 'stock' },
  { name: 'length', title: 'length' },
  { name: 'section', title: 'real size' },
  { name: 'strip', title: 'straight strip' },
  { name: 'place', title: 'place' },
  { name: 'acts', title: 'measure, take off', unseen: true, right: true, look: 'acts' },
]
const OF_NO_SIZE = ['stock', 'place', 'note', 'bow', 'cup']

const opened = ref<string>()
const open = computed({
  get: () => opened.value ?? props.alone,
  set: (board) => (opened.value = board ?? ''),
})
const cell = useSizedCells<RackBoard>({
  name: 'rack',
  called: (board) => `board ${board.number}`,
  isSize: (field) => !OF_NO_SIZE.includes(field),
  ask: ({ id: board_id }, body) =>
    api.POST('/api/rack/boards/{board_id}/effect', { params: { path: { board_id } }, body }),
  write: (board, typed) => props.held.writeBoard(board.id, typed),
})
</script>

<template>
  <RuledTable
    called="Boards"
    :columns="COLUMNS"
    :rows="rack.boards"
    :key-of="(board) => board.id"
    :at-least="760"
    :is-open="(board) => open === board.id"
  >
    <template #number="{ row }">
      <RouterLink :to="`/rack/${row.id}`" :aria-label="`Board ${row.number} alone`">{{
        row.number
      }}</RouterLink>
    </template>
    <template #stock="{ row }">
      <EditableCell v-bind="cell(row, 'stock', 'Stock')" class="called" />
      <span v-if="row.left_alone" class="alone">{{ row.left_alone }}</span>
    </template>
    <template #length="{ row }">
      <EditableCell v-bind="cell(row, 'length', 'Length')" takes-length class="figure">
        <LengthText :length="row.length_shown" />
      </EditableCell>
    </template>
    <template #section="{ row }">
      <SectionText v-if="row.section" :section="row.section" />
      <span class="quiet source">{{ row.section_source }}</span>
    </template>
    <template #strip="{ row }">
      <LengthText v-if="row.straight_width" :length="row.straight_width" />
      <span v-else class="quiet">none</span>
    </template>
    <template #place="{ row }"><EditableCell v-bind="cell(row, 'place', 'Place')" /></template>
    <template #acts="{ row }">
      <v-btn
        variant="text"
        size="small"
        :aria-expanded="open === row.id"
        :aria-label="`Measure board ${row.number}`"
        @click="open = open === row.id ? undefined : row.id"
        >Measure</v-btn
      >
      <v-btn
        variant="text"
        size="small"
        :aria-label="`Take off board ${row.number}`"
        @click="held.removeBoards([row.id])"
        >Take off</v-btn
      >
    </template>
    <template #under="{ row }">
      <div class="measures">
        <div v-for="{ field, label, hint, isLength } in MEASURES" :key="field">
          <span class="quiet small">{{ label }}</span>
          <EditableCell v-bind="cell(row, field, label)" :takes-length="isLength">
            <template v-if="row[field]">{{ row[field] }}</template>
            <span v-else class="quiet small">{{ hint }}</span>
          </EditableCell>
        </div>
      </div>
    </template>
  </RuledTable>
  <EffectOfSize ref="effect" />
</template>

<style scoped>
:deep(.number) {
  font-size: var(--text-lead);
}

:deep(.number) a {
  color: inherit;
  text-decoration: none;
  border-bottom: 1px dotted;
}

.alone {
  display: block;
  font-size: var(--text-fine);
  color: rgb(var(--v-theme-error));
  padding-left: 2px;
}

.source {
  display: block;
  font-size: var(--text-small);
  white-space: nowrap;
}

:deep(.acts) {
  white-space: nowrap;
}

.measures {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 8px 20px;
  padding: 4px 0 8px 40px;
}

.measures :deep(input:not(:focus)) {
  border-bottom-color: rgb(var(--v-theme-rule));
}
</style>
