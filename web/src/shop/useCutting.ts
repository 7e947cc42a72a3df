import { v4 as newId } from 'uuid'
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import {
  api,
  type BenchEvent,
  type Card,
  type CardCut,
  type Cutting,
  keys,
  outcomeOf,
} from '../api'
import { useHappened } from '../shared'
import { keptCuttings } from './stored'
import { benchNow } from './unsent'

export type Order = 'by_stop' | 'by_board'

/** A row of a set-up as it is now: one board, and which of its cuts are done. */
export interface RowNow {
  board: number
  called: string
  stock: string
  kind: string
  off: string
  cuts: CardCut[]
  left: CardCut[]
  /** Whether something went wrong with its board that is not planned around yet. */
  waits: boolean
}

export type CardNow = Omit<Card, 'rows'> & { rows: RowNow[]; isDone: boolean }

/** What is cut of a project in the shop, and everything that happens there. */
export function useCutting(project: string) {
  const held = useHappened({
    key: keys.shop(project),
    project,
    kept: keptCuttings,
    isOver: (cutting) => cutting.finished,
    ask: () =>
      api.GET('/api/projects/{project_id}/shop', { params: { path: { project_id: project } } }),
    send: (cutting_id, events) =>
      api.POST('/api/cuttings/{cutting_id}/events', {
        params: { path: { cutting_id } },
        body: { events },
      }),
    isPlanned: (event) => event.kind !== 'cut' && event.kind !== 'undone',
  })
  const { thing: cutting, unsent } = held
  const order = useLocalStorage<Order>(`grain-tally:shop-order-${project}`, 'by_stop')
  /** The set-up that is looked at, by its key; the first one with cuts left where none is. */
  const looked = useLocalStorage(`grain-tally:shop-at-${project}`, '')

  const now = computed(() => benchNow(cutting.value, unsent.value))

  function cardNow(card: Card): CardNow {
    const rows = card.rows.map((row) => ({
      ...row,
      left: row.cuts.filter((cut) => !now.value.done.has(cut.key)),
      waits: now.value.waiting.has(row.board),
    }))
    return { ...card, rows, isDone: rows.every((row) => !row.left.length) }
  }

  const cards = computed(() => (cutting.value?.[order.value].cards ?? []).map(cardNow))
  const firstLeft = computed(() => cards.value.findIndex((card) => !card.isDone))
  const at = computed(() => {
    const found = cards.value.findIndex((card) => card.key === looked.value)
    return found >= 0 ? found : Math.max(0, firstLeft.value)
  })
  const card = computed<CardNow | undefined>(() => cards.value[at.value])
  /** The board that is next at this set-up. */
  const row = computed(() => card.value?.rows.find((one) => one.left.length && !one.waits))
  const isAllCut = computed(() => cards.value.length > 0 && firstLeft.value < 0)
  const minutes = computed(() =>
    Math.round(
      cards.value
        .filter((one) => !one.isDone)
        .reduce((sum, one) => {
          const all = one.rows.reduce((cuts, each) => cuts + each.cuts.length, 0)
          const left = one.rows.reduce((cuts, each) => cuts + each.left.length, 0)
          return sum + (one.minutes * left) / Math.max(1, all)
        }, 0),
    ),
  )

  function look(index: number) {
    const wanted = cards.value[Math.min(Math.max(index, 0), cards.value.length - 1)]
    if (wanted) looked.value = wanted.key
  }

  /** Something happened at the bench. */
  function tell(kind: string, more: Partial<Omit<BenchEvent, 'id' | 'kind'>> = {}) {
    return held.tell({ ...NOTHING_SAID, ...more, id: newId(), kind })
  }

  /** Cuts are done, of one board or of all that are ready; then comes what is next. */
  async function done(rows: RowNow[]) {
    const cuts = rows.flatMap((one) => one.left.map((cut) => cut.key))
    if (!cuts.length) return
    await tell('cut', { cuts: cuts.join(' ') })
    if (card.value?.isDone && firstLeft.value >= 0) look(firstLeft.value)
  }

  /** Takes back what was told last, here or on another device. */
  async function undo() {
    const last = now.value.last
    if (last) await tell('undone', { undoes: last })
  }

  async function start() {
    return held.ask(
      api.POST('/api/projects/{project_id}/cuttings', {
        params: { path: { project_id: project } },
        body: { id: newId() },
      }),
    )
  }

  const over = () =>
    held.letGo([keys.project(project), keys.anyPlan, keys.rack, keys.workshop, keys.anyShop])

  /** Ends it once all is sent; says why it cannot be. */
  async function finish(): Promise<string> {
    await held.sendAll()
    const known = cutting.value
    if (!known?.id) return 'nothing is begun'
    if (unsent.value.length) return 'some cuts are not sent yet: wait for the connection'
    const outcome = await outcomeOf<Cutting>(
      api.POST('/api/cuttings/{cutting_id}/finish', {
        params: { path: { cutting_id: known.id } },
        body: { change_id: newId() },
      }),
    )
    if (outcome.kind === 'offline') return 'there is no connection: finish when it returns'
    if (outcome.kind !== 'done') return 'detail' in outcome ? outcome.detail : 'sign in again'
    await over()
    return ''
  }

  /** Takes the end back: it is cut on. */
  async function openAgain(): Promise<string> {
    const cutting_id = cutting.value?.id ?? ''
    const outcome = await held.ask(
      api.POST('/api/cuttings/{cutting_id}/open-again', {
        params: { path: { cutting_id } },
        body: { change_id: newId() },
      }),
    )
    return 'detail' in outcome ? outcome.detail : ''
  }

  /** Calls it off where nothing is cut yet. */
  async function callOff(): Promise<string> {
    const id = cutting.value?.id
    if (!id) return ''
    const outcome = await outcomeOf<unknown>(
      api.DELETE('/api/cuttings/{cutting_id}', { params: { path: { cutting_id: id } } }),
    )
    if (outcome.kind === 'offline') return 'there is no connection'
    if (outcome.kind !== 'done') return 'detail' in outcome ? outcome.detail : 'sign in again'
    await over()
    return ''
  }

  return {
    cutting,
    error: held.error,
    refetch: held.refetch,
    offline: held.offline,
    planning: held.planning,
    refusals: held.refusals,
    gone: held.gone,
    startOver: held.startOver,
    unsent,
    order,
    now,
    cards,
    at,
    card,
    row,
    isAllCut,
    minutes,
    look,
    tell,
    done,
    undo,
    start,
    finish,
    openAgain,
    callOff,
  }
}

/** What an event says that says nothing beside its kind. */
export const NOTHING_SAID: Omit<BenchEvent, 'id' | 'kind'> = {
  cuts: '',
  board: 0,
  piece: 0,
  now: '',
  start: '',
  end: '',
  undoes: '',
}

export type AtTheBench = ReturnType<typeof useCutting>
