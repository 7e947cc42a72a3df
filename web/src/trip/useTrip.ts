import { v4 as newId } from 'uuid'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { computed, ref, shallowRef } from 'vue'
import { askToSignIn } from '../account/session'
import { api, outcomeOf, type Trip, type TripEvent, type TripLine } from '../api/client'
import { keys } from '../api/keys'
import { lineNow, moneyNow, type LineNow } from './unsent'
import { forgetTrip, storedTrip, storeEvent, storeTrip, waitingEvents } from './stored'

const RETRY_MS = 4000
const ONLY_TICKS = ['took', 'put back', 'checked', 'tag']

/** Why something that happened could not be taken in, and what it was. */
export interface Refusal {
  message: string
  event?: TripEvent
}

/**
 * The open trip of a project. What happens is stored here first, then shown as done, then sent: at
 * once where there is a connection, else when it returns.
 */
export function useTrip(project: string) {
  const queries = useQueryClient()
  const key = keys.trip(project)
  const waiting = shallowRef<TripEvent[]>([])
  const offline = ref(false)
  const sending = ref(false)
  const planning = ref(false)
  const refusals = ref<Refusal[]>([])
  const gone = ref('')

  const {
    data: trip,
    error,
    refetch,
  } = useQuery({
    queryKey: key,
    retry: false,
    staleTime: Infinity,
    queryFn: async () => {
      const known = await storedTrip(project)
      if (known && !known.finished) {
        waiting.value = await waitingEvents(known.id)
        void catchUp()
        return known
      }
      return begin()
    },
  })

  async function begin(): Promise<Trip> {
    for (;;) {
      const outcome = await outcomeOf<Trip>(
        api.POST('/api/projects/{project_id}/trips', {
          params: { path: { project_id: project } },
          body: { id: newId() },
        }),
      )
      offline.value = outcome.kind === 'offline'
      if (outcome.kind === 'done') {
        await storeTrip(outcome.data)
        return outcome.data
      }
      if (outcome.kind === 'signed-out') await askToSignIn()
      else if (outcome.kind === 'offline') throw new Error('there is no connection')
      else throw new Error(outcome.detail)
    }
  }

  async function keep(now: Trip) {
    await storeTrip(now)
    waiting.value = await waitingEvents(now.id)
    queries.setQueryData(key, now)
  }

  /** Sends what waits, or only asks how things are; one request at a time. */
  async function catchUp() {
    if (sending.value || (trip.value && trip.value.finished)) return
    sending.value = true
    try {
      for (;;) {
        const known = trip.value ?? (await storedTrip(project))
        if (!known) return
        const events = await waitingEvents(known.id)
        planning.value = events.some((one) => !ONLY_TICKS.includes(one.kind))
        const outcome = await outcomeOf<Trip>(
          api.POST('/api/trips/{trip_id}/events', {
            params: { path: { trip_id: known.id } },
            body: { events: events.slice(0, 200) },
          }),
        )
        offline.value = outcome.kind === 'offline'
        if (outcome.kind === 'offline') return
        if (outcome.kind === 'signed-out') {
          await askToSignIn()
          continue
        }
        if (outcome.kind !== 'done') {
          gone.value = outcome.detail
          return
        }
        for (const { id, message } of outcome.data.refused) {
          refusals.value.push({ message, event: events.find((one) => one.id === id) })
        }
        await keep(outcome.data)
        if (!waiting.value.length) return
      }
    } finally {
      sending.value = false
      planning.value = false
    }
  }

  useEventListener(window, 'online', () => void catchUp())
  useEventListener(document, 'visibilitychange', () => {
    if (!document.hidden && trip.value) void catchUp()
  })
  useIntervalFn(() => {
    if (waiting.value.length || offline.value) void catchUp()
  }, RETRY_MS)

  /** Something happened: stored on the disk when this resolves. */
  async function tell(kind: string, more: Partial<Omit<TripEvent, 'id' | 'kind'>> = {}) {
    if (!trip.value) return
    const event: TripEvent = { ...NOTHING_SAID, ...more, id: newId(), kind }
    await storeEvent(trip.value.id, event)
    if (!waiting.value.some((one) => one.id === event.id)) {
      waiting.value = [...waiting.value, event]
    }
    void catchUp()
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

  async function ask(request: Promise<{ data?: Trip; error?: unknown; response: Response }>) {
    const outcome = await outcomeOf<Trip>(request)
    offline.value = outcome.kind === 'offline'
    if (outcome.kind === 'done') await keep(outcome.data)
    else if (outcome.kind === 'refused') refusals.value.push({ message: outcome.detail })
    return outcome.kind
  }

  /** Plans anew from the project as it is at the desk now. */
  async function renew() {
    const trip_id = trip.value?.id ?? ''
    planning.value = true
    await ask(api.POST('/api/trips/{trip_id}/renew', { params: { path: { trip_id } } }))
    planning.value = false
  }

  /** Ends the trip once all is sent; whether it is. */
  async function finish(put_away: boolean): Promise<string> {
    await catchUp()
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
    await forgetTrip(known)
    forget()
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
    await forgetTrip(known)
    forget()
    return true
  }

  /** Leaves a trip that is not there any more, and begins anew. */
  async function startOver() {
    if (trip.value) await forgetTrip(trip.value)
    gone.value = ''
    waiting.value = []
    await refetch()
  }

  function forget() {
    queries.removeQueries({ queryKey: key })
    for (const also of [keys.project(project), keys.anyPlan, keys.rack, keys.trips(project)]) {
      void queries.invalidateQueries({ queryKey: also })
    }
  }

  const unsent = computed(() => {
    const seen = new Set(trip.value?.seen)
    return waiting.value.filter((event) => !seen.has(event.id))
  })

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
    error,
    refetch,
    offline,
    planning,
    unsent,
    refusals,
    gone,
    startOver,
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
