<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, type Rack, type RackBoard, type RackFields } from '../api/client'
import EditableCell from '../shared/EditableCell.vue'
import EffectOfSize from '../shared/EffectOfSize.vue'
import LengthText from '../shared/LengthText.vue'
import SectionText from '../shared/SectionText.vue'
import { useSizedCells } from '../shared/useSizedCells'
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
  <div class="scroll" tabindex="0" role="region" aria-label="Boards">
    <table class="ruled">
      <thead>
        <tr>
          <th class="to-right">number</th>
          <th>stock</th>
          <th>length</th>
          <th>real size</th>
          <th>straight strip</th>
          <th>place</th>
          <th><span class="said-only">measure, take off</span></th>
        </tr>
      </thead>
      <tbody v-for="board in rack.boards" :key="board.id">
        <tr>
          <td class="to-right figure number">
            <RouterLink :to="`/rack/${board.id}`" :aria-label="`Board ${board.number} alone`">{{
              board.number
            }}</RouterLink>
          </td>
          <td>
            <EditableCell v-bind="cell(board, 'stock', 'Stock')" class="called" />
            <span v-if="board.left_alone" class="alone">{{ board.left_alone }}</span>
          </td>
          <td>
            <EditableCell v-bind="cell(board, 'length', 'Length')" takes-length class="figure">
              <LengthText :length="board.length_shown" />
            </EditableCell>
          </td>
          <td>
            <SectionText v-if="board.section" :section="board.section" />
            <span class="quiet source">{{ board.section_source }}</span>
          </td>
          <td>
            <LengthText v-if="board.straight_width" :length="board.straight_width" />
            <span v-else class="quiet">none</span>
          </td>
          <td><EditableCell v-bind="cell(board, 'place', 'Place')" /></td>
          <td class="to-right acts">
            <v-btn
              variant="text"
              size="small"
              :aria-expanded="open === board.id"
              :aria-label="`Measure board ${board.number}`"
              @click="open = open === board.id ? undefined : board.id"
              >Measure</v-btn
            >
            <v-btn
              variant="text"
              size="small"
              :aria-label="`Take off board ${board.number}`"
              @click="held.removeBoards([board.id])"
              >Take off</v-btn
            >
          </td>
        </tr>
        <tr v-if="open === board.id">
          <td colspan="7">
            <div class="measures">
              <div v-for="{ field, label, hint, isLength } in MEASURES" :key="field">
                <span class="quiet small">{{ label }}</span>
                <EditableCell v-bind="cell(board, field, label)" :takes-length="isLength">
                  <template v-if="board[field]">{{ board[field] }}</template>
                  <span v-else class="quiet small">{{ hint }}</span>
                </EditableCell>
              </div>
            </div>
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

.number {
  font-size: var(--text-lead);
}

.number a {
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

.acts {
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
