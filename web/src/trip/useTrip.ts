import { v4 as newId } from 'uuid'
import { computed } from 'vue'
import { api, keys, outcomeOf, type TripEvent, type TripLine } from '../api'
import { useHappened } from '../shared'
import { keptTrips } from './stored'
import { lineNow, moneyNow, type LineNow } from './unsent'

const ONLY_TICKS = ['took', 'put back', 'checked', 'tag']

/** The open trip of a project, and everything that happens on it. */
export function useTrip(project: string) {
  const held = useHappened({
    key: keys.trip(project),
    project,
    kept: keptTrips,
    isOver: (trip) => Boolean(trip.finished),
    ask: () =>
      api.POST('/api/projects/{project_id}/trips', {
        params: { path: { project_id: project } },
        body: { id: newId() },
      }),
    send: (trip_id, events) =>
      api.POST('/api/trips/{trip_id}/events', { params: { path: { trip_id } }, body: { events } }),
    isPlanned: (event) => !ONLY_TICKS.includes(event.kind),
  })
  const { thing: trip, waiting, unsent, planning } = held

  /** Something happened at the yard. */
  async function tell(kind: string, more: Partial<Omit<TripEvent, 'id' | 'kind'>> = {}) {
    await held.tell({ ...NOTHING_SAID, ...more, id: newId(), kind })
  }

  const beingTaken = new Map<string, number>()

  /** Some of a line were taken: not more than are wanted, however fast the finger is. */
  async function took(line: LineNow, count: number) {
    const under = beingTaken.get(line.key) ?? 0
    const more = Math.min(count, line.toTake - under)
    if (more < 1) return
    beingTaken.set(line.key, under + more)
    try {
      await tell('took', { line: line.key, count: more })
    } finally {
      beingTaken.set(line.key, (beingTaken.get(line.key) ?? 0) - more)
    }
  }

  /** Plans anew from the project as it is at the desk now. */
  async function renew() {
    const trip_id = trip.value?.id ?? ''
    planning.value = true
    await held.ask(api.POST('/api/trips/{trip_id}/renew', { params: { path: { trip_id } } }))
    planning.value = false
  }

  /** Ends the trip once all is sent; whether it is. */
  async function finish(put_away: boolean): Promise<string> {
    await held.sendAll()
    const known = trip.value
    if (!known) return 'there is no trip'
    if (waiting.value.length) return 'some ticks are not sent yet: wait for the connection'
    const outcome = await outcomeOf<unknown>(
      api.POST('/api/trips/{trip_id}/finish', {
        params: { path: { trip_id: known.id } },
        body: { change_id: newId(), put_away },
      }),
    )
    if (outcome.kind === 'offline') return 'there is no connection: finish when it returns'
    if (outcome.kind !== 'done') return 'detail' in outcome ? outcome.detail : 'sign in again'
    await over()
    return ''
  }

  /** Calls the trip off; whether it is. */
  async function callOff(): Promise<boolean> {
    const known = trip.value
    if (!known) return false
    const outcome = await outcomeOf<unknown>(
      api.DELETE('/api/trips/{trip_id}', { params: { path: { trip_id: known.id } } }),
    )
    if (outcome.kind !== 'done') return false
    await over()
    return true
  }

  const over = () =>
    held.letGo([keys.project(project), keys.anyPlan, keys.rack, keys.trips(project)])

  /** A line with what waits to be sent counted in. */
  function now(line: TripLine): LineNow {
    return lineNow(line, unsent.value)
  }

  const lines = computed(() => (trip.value?.racks ?? []).flatMap((rack) => rack.lines.map(now)))
  const taken = computed(() =>
    lines.value.reduce((sum, line) => sum + Math.min(line.taken, line.wanted), 0),
  )

  /** What the load costs: as the server said, or, while something waits to be sent, as far as this
   * phone knows, which plans nothing. */
  const money = computed(() => {
    const known = trip.value
    if (!known) return { total: '', inCart: '', about: false }
    if (!unsent.value.length) return { total: known.total, inCart: known.in_cart, about: false }
    const stored = { total: known.total, inCart: known.in_cart } // by an older version: no prices
    return { ...(known.currency ? moneyNow(known, lines.value) : stored), about: true }
  })

  const checked = computed(() => {
    const keys = new Set(trip.value?.checks.filter((one) => one.checked).map((one) => one.key))
    for (const { kind, line } of unsent.value) {
      if (kind !== 'checked') continue
      if (!keys.delete(line)) keys.add(line)
    }
    return keys
  })

  return {
    trip,
    error: held.error,
    refetch: held.refetch,
    offline: held.offline,
    planning,
    unsent,
    refusals: held.refusals,
    gone: held.gone,
    startOver: held.startOver,
    taken,
    money,
    checked,
    now,
    tell,
    took,
    renew,
    finish,
    callOff,
  }
}

/** What an event says that says nothing beside its kind. */
export const NOTHING_SAID: Omit<TripEvent, 'id' | 'kind'> = {
  line: '',
  count: 1,
  price: '',
  length: '',
  thickness: '',
  width: '',
  crook: '',
  bow: '',
  cup: '',
  twist: '',
  undoes: '',
}

export type TripAtYard = ReturnType<typeof useTrip>
