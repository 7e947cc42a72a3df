<script setup lang="ts">
import { v4 as newId } from 'uuid'
import { refDebounced, useSessionStorage } from '@vueuse/core'
import { computed, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, outcomeOf, type Effect, type RackBoard, type RackFields } from '../api/client'
import { useFaults } from '../api/faults'
import { useDrafts } from '../desk/useDrafts'
import EditableCell from '../shared/EditableCell.vue'
import LengthText from '../shared/LengthText.vue'
import EffectOfSize from '../shared/EffectOfSize.vue'
import PageTurner from '../shared/PageTurner.vue'
import SectionText from '../shared/SectionText.vue'
import { useRack } from './useRack'

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

const route = useRoute()
const router = useRouter()
const search = computed({
  get: () => String(route.query.find ?? ''),
  set: (find: string | null) => void router.replace({ query: { find: find || undefined } }),
})
const page = ref(1)
watch(search, () => (page.value = 1))
const alone = computed(() => String(route.params.board ?? '') || undefined)
const held = useRack(refDebounced(search, 200), page, alone)
const { rack, isError, waiting, offline } = held
const { drafts, keep, drop } = useDrafts('rack')
const opened = ref<string>()
const open = computed({
  get: () => opened.value ?? alone.value,
  set: (board) => (opened.value = board ?? ''),
})
const effect = useTemplateRef('effect')
const CHANGING = [
  'thickness',
  'width',
  'width_middle',
  'width_end',
  'length',
  'crook',
  'twist',
  'flaws',
]
const empty = { stock: '', length: '', place: '' }
const fresh = useSessionStorage('grain-tally:rack-board', { ...empty })
const faults = useFaults('stock')

function bind(board: RackBoard, field: Field, label: string) {
  const key = `${board.id}.${field}`
  return {
    saved: String(board[field]),
    draft: drafts.value[key],
    label: `${label} of board ${board.number}`,
    place: field,
    save: (text: string) => save(board, field, text),
    onKeep: (text: string) => keep(key, text),
    onDrop: () => drop(key),
  }
}

function save(board: RackBoard, field: Field, text: string) {
  const write = () => held.writeBoard(board.id, { [field]: text })
  if (!CHANGING.includes(field)) return write()
  const asked = outcomeOf<Effect[]>(
    api.POST('/api/rack/boards/{board_id}/effect', {
      params: { path: { board_id: board.id } },
      body: { [field]: text },
    }),
  )
  return effect.value ? effect.value.apply(asked, write) : write()
}

async function add() {
  const outcome = await held.writeBoard(newId(), { ...fresh.value })
  if (faults.settle(outcome)) fresh.value = { ...empty, place: fresh.value.place }
}
</script>

<template>
  <div v-if="isError && !rack" class="page" role="alert">
    <h1>The rack could not be loaded</h1>
    <v-btn @click="held.refetch()">Try again</v-btn>
  </div>
  <div v-else-if="!rack" class="page quiet" role="status">Going to the rack …</div>
  <div v-else class="page">
    <Teleport defer to="#header-acts">
      <v-btn :disabled="!rack.undo" :title="rack.undo ?? undefined" @click="held.step('undo')"
        >Undo</v-btn
      >
      <v-btn :disabled="!rack.redo" :title="rack.redo ?? undefined" @click="held.step('redo')"
        >Redo</v-btn
      >
    </Teleport>
    <div class="top">
      <div>
        <h1>Rack</h1>
        <p class="quiet lead">
          {{ rack.total }} board{{ rack.total === 1 ? '' : 's' }} on hand. A project uses them where
          that saves buying, or first of all; twisted and crooked ones are left alone, flaws are cut
          around.
        </p>
      </div>
      <v-btn href="/api/rack/labels.pdf">Print labels</v-btn>
    </div>
    <p v-if="alone" class="quiet">
      One board of it. <RouterLink to="/rack">The whole rack</RouterLink>
    </p>
    <form v-else class="new" @submit.prevent="add">
      <v-text-field
        v-model="fresh.stock"
        label="Stock"
        placeholder="2x4 treated"
        :error-messages="faults.at('stock')"
      />
      <v-text-field
        v-model="fresh.length"
        label="Length"
        placeholder="70 1/2"
        data-takes="length"
        :error-messages="faults.at('length')"
      />
      <v-text-field
        v-model="fresh.place"
        label="Place"
        placeholder="left bay"
        :error-messages="faults.at('place')"
      />
      <v-btn type="submit" color="primary" variant="flat">Lay it on</v-btn>
    </form>
    <p class="change" role="status">
      <template v-if="offline"
        ><strong class="text-error">No connection.</strong> What you typed is kept.</template
      >
      <template v-else-if="waiting">Saving …</template>
      <template v-else>{{ rack.change }}</template>
    </p>
    <v-text-field
      v-if="rack.total && !alone"
      v-model="search"
      label="Find by stock, place, note or number"
      type="search"
      clearable
      class="find"
    />
    <div v-if="rack.boards.length" class="scroll" tabindex="0" role="region" aria-label="Boards">
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
              <EditableCell v-bind="bind(board, 'stock', 'Stock')" class="called" />
              <span v-if="board.left_alone" class="alone">{{ board.left_alone }}</span>
            </td>
            <td>
              <EditableCell v-bind="bind(board, 'length', 'Length')" takes-length class="figure">
                <LengthText :length="board.length_shown" />
              </EditableCell>
            </td>
            <td>
              <SectionText v-if="board.section" :section="board.section" />
              <span class="quiet small source">{{ board.section_source }}</span>
            </td>
            <td>
              <LengthText v-if="board.straight_width" :length="board.straight_width" />
              <span v-else class="quiet">none</span>
            </td>
            <td><EditableCell v-bind="bind(board, 'place', 'Place')" /></td>
            <td class="to-right acts-cell">
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
                  <EditableCell v-bind="bind(board, field, label)" :takes-length="isLength">
                    <template v-if="board[field]">{{ board[field] }}</template>
                    <span v-else class="quiet small">{{ hint }}</span>
                  </EditableCell>
                </div>
              </div>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-else class="quiet">
      {{
        rack.total
          ? 'No board like that.'
          : 'Nothing on the rack yet: offcuts, salvaged boards, leftovers.'
      }}
    </p>
    <PageTurner v-model="page" :found="rack.found" :size="rack.page_size" what="boards" />
    <EffectOfSize ref="effect" />
  </div>
</template>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: flex-start;
  gap: 12px;
}

.lead {
  max-width: 46em;
}

.new {
  display: grid;
  grid-template-columns: 2fr 1fr 2fr auto;
  gap: 12px;
  align-items: start;
  margin-top: 10px;
}

.change {
  min-height: 1.4em;
  font-size: 0.86rem;
  margin-top: 10px !important;
}

.find {
  max-width: 380px;
  margin-bottom: 8px;
}

.scroll {
  overflow-x: auto;
}

table {
  min-width: 760px;
}

.number {
  font-size: 1.15rem;
}

.number a {
  color: inherit;
  text-decoration: none;
  border-bottom: 1px dotted;
}

.alone {
  display: block;
  font-size: 0.78rem;
  color: rgb(var(--v-theme-error));
  padding-left: 2px;
}

.small {
  font-size: 0.8rem;
}

.source {
  display: block;
  white-space: nowrap;
}

.acts-cell {
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

@media (max-width: 760px) {
  .new {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
