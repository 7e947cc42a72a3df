<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { BenchEvent, Cutting } from '../api'
import { FormDialog, LengthText } from '../shared'
import type { CardNow, RowNow } from './useCutting'

/** What went wrong: a piece cut too short, a bad spot, a board of another length, something that is
 * missing or of no use. What was refused stands there again. */
const props = defineProps<{
  cutting: Cutting
  card: CardNow | undefined
  row: RowNow | undefined
  refused: BenchEvent | undefined
}>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ told: [kind: string, more: Partial<BenchEvent>] }>()

const KINDS = [
  { value: 'miscut', title: 'Cut too short' },
  { value: 'flaw', title: 'A bad spot: knot, split' },
  { value: 'length', title: 'A board is not as long' },
  { value: 'lost', title: 'Missing, bowed after the rip, or of no use' },
]
const kind = ref('miscut')
const cut = ref('')
const board = ref(0)
const piece = ref(0)
const now = ref('')
const start = ref('')
const end = ref('')

/** The cuts of this set-up by which something is measured, the next one first. */
const cuts = computed(() =>
  (props.card?.rows ?? [])
    .flatMap((row) => row.cuts)
    .filter((one) => one.measured)
    .map((one) => ({
      title: `board ${one.board}: ${one.makes}`,
      value: one.key,
      measured: one.measured,
      how: one.measured_how,
    })),
)
const chosen = computed(() => cuts.value.find((one) => one.value === cut.value))
const measured = computed(() => chosen.value?.measured)
const boards = computed(() =>
  props.cutting.boards
    .filter((one) => !one.is_gone && (kind.value !== 'length' || one.is_whole))
    .map((one) => ({ title: `${one.number}, ${one.stock} ${one.called}`, value: one.number })),
)
const pieces = computed(() =>
  (props.cutting.boards.find((one) => one.number === board.value)?.pieces ?? []).map((one) => ({
    title: `${one.called}, ${one.length.text}`,
    value: one.number,
  })),
)
const unit = computed(() => (props.cutting.notation === 'mm' ? 'mm' : '″'))
const isRip = computed(() => props.card?.is_crosscut === false)

watch(
  open,
  (isOpen) => {
    if (!isOpen) return
    const again = props.refused
    kind.value = again?.kind ?? 'miscut'
    now.value = again?.now ?? ''
    start.value = again?.start ?? ''
    end.value = again?.end ?? ''
    const next = props.row?.left.find((one) => one.measured) ?? props.row?.left[0]
    cut.value = again?.cuts || next?.key || cuts.value[0]?.value || ''
    board.value = again?.board || props.row?.board || boards.value[0]?.value || 0
    piece.value = again?.piece ?? pieces.value[0]?.value ?? 0
    if (!again && !cuts.value.length) kind.value = 'flaw'
  },
  { immediate: true },
)
watch([board, kind], () => {
  if (!boards.value.some((one) => one.value === board.value))
    board.value = boards.value[0]?.value ?? 0
  if (!pieces.value.some((one) => one.value === piece.value))
    piece.value = pieces.value[0]?.value ?? 0
})

const isChanged = computed(() => Boolean(now.value || start.value || end.value))

function save() {
  if (kind.value === 'miscut') emit('told', 'miscut', { cuts: cut.value, now: now.value })
  else if (kind.value === 'length') emit('told', 'length', { board: board.value, now: now.value })
  else if (kind.value === 'flaw')
    emit('told', 'flaw', {
      board: board.value,
      piece: piece.value,
      start: start.value,
      end: end.value,
    })
  else emit('told', 'lost', { board: board.value, piece: piece.value })
  open.value = false
}
</script>

<template>
  <FormDialog
    v-model="open"
    title="What went wrong?"
    act="Plan around it"
    :width="520"
    :changed="isChanged"
    for-fingers
    @save="save"
  >
    <v-select v-model="kind" :items="KINDS" label="What" class="gap-below" />
    <template v-if="kind === 'miscut'">
      <v-select v-model="cut" :items="cuts" label="Which cut" class="gap-below" />
      <p v-if="measured" class="quiet">
        It should be <LengthText :length="measured" />{{ isRip ? ' wide' : ''
        }}{{ chosen?.how ? ` ${chosen.how}` : '' }}. A little long is no miscut: take so much off at
        the same stop.
      </p>
      <v-text-field
        v-model="now"
        :label="isRip ? 'How wide is it now?' : 'How long is it now?'"
        :suffix="unit"
        data-takes="length"
        autocomplete="off"
        autofocus
      />
    </template>
    <template v-else>
      <v-select v-model="board" :items="boards" label="Board" class="gap-below" />
      <v-select
        v-if="kind !== 'length'"
        v-model="piece"
        :items="pieces"
        label="Piece"
        class="gap-below"
      />
      <v-text-field
        v-if="kind === 'length'"
        v-model="now"
        label="How long is it?"
        :suffix="unit"
        data-takes="length"
        autocomplete="off"
      />
      <div v-else-if="kind === 'flaw'" class="two">
        <v-text-field
          v-model="start"
          label="Bad from"
          :suffix="unit"
          data-takes="length"
          autocomplete="off"
        />
        <v-text-field
          v-model="end"
          label="to"
          :suffix="unit"
          data-takes="length"
          autocomplete="off"
        />
      </div>
      <p v-if="kind === 'flaw'" class="quiet">Measured from the end nearest the marked one.</p>
    </template>
  </FormDialog>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
</style>
