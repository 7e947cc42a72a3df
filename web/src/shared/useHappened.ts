import { useQuery, useQueryClient, type QueryKey } from '@tanstack/vue-query'
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { computed, ref, shallowRef } from 'vue'
import { askToSignIn, type Outcome, outcomeOf } from '../api'
import type { Kept, Subject } from './onDevice'

const RETRY_MS = 4000
const AT_ONCE = 200

type Request = Parameters<typeof outcomeOf>[0]

/** Why something that happened could not be taken in, and what it was. */
export interface Refusal<E> {
  message: string
  event?: E
}

interface Ways<T, E> {
  key: QueryKey
  project: string
  kept: Kept<T, E>
  isOver: (thing: T) => boolean
  /** Asks for it where none is kept here. */
  ask: () => Request
  send: (id: string, events: E[]) => Request
  /** Whether an event changes what there is, so that the answer takes a moment. */
  isPlanned: (event: E) => boolean
}

/**
 * Something that events happen to, such as a trip. What happens is stored on the device first, then
 * shown as done, then sent: at once where there is a connection, else when it returns.
 */
export function useHappened<T extends Subject, E extends { id: string }>(ways: Ways<T, E>) {
  const { key, project, kept } = ways
  const queries = useQueryClient()
  const waiting = shallowRef<E[]>([])
  const offline = ref(false)
  const planning = ref(false)
  const refusals = ref<Refusal<E>[]>([])
  const gone = ref('')

  const {
    data: thing,
    error,
    refetch,
  } = useQuery<T>({
    queryKey: key,
    retry: false,
    staleTime: Infinity,
    structuralSharing: false,
    queryFn: async () => {
      const known = await kept.stored(project)
      if (known?.id && !ways.isOver(known)) {
        waiting.value = await kept.waiting(known.id)
        void catchUp()
        return known
      }
      return first()
    },
  })

  async function first(): Promise<T> {
    for (;;) {
      const outcome = await outcomeOf<T>(ways.ask())
      offline.value = outcome.kind === 'offline'
      if (outcome.kind === 'done') {
        if (outcome.data.id) await kept.store(outcome.data)
        return outcome.data
      }
      if (outcome.kind === 'signed-out') await askToSignIn()
      else if (outcome.kind === 'offline') throw new Error('there is no connection')
      else throw new Error(outcome.detail)
    }
  }

  async function keep(now: T) {
    await kept.store(now)
    waiting.value = now.id ? await kept.waiting(now.id) : []
    queries.setQueryData(key, now)
  }

  let running: Promise<void> | undefined

  /** Sends what waits, or only asks how things are; one request at a time. */
  function catchUp(): Promise<void> {
    running ??= send().finally(() => (running = undefined))
    return running
  }

  /** Sends until nothing waits any more, where there is a connection. */
  async function sendAll() {
    await catchUp()
    if (waiting.value.length && !offline.value) await catchUp()
  }

  async function send() {
    if (thing.value && ways.isOver(thing.value)) return
    try {
      for (;;) {
        const known = thing.value ?? (await kept.stored(project))
        if (!known?.id) return
        const events = await kept.waiting(known.id)
        planning.value = events.some(ways.isPlanned)
        const outcome = await outcomeOf<T>(ways.send(known.id, events.slice(0, AT_ONCE)))
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
          refusals.value.push({
            message,
            event: events.find((one) => one.id === id),
          } as (typeof refusals.value)[number])
        }
        await keep(outcome.data)
        if (!waiting.value.length) return
      }
    } finally {
      planning.value = false
    }
  }

  useEventListener(window, 'online', () => void catchUp())
  useEventListener(document, 'visibilitychange', () => {
    if (!document.hidden && thing.value) void catchUp()
  })
  useIntervalFn(() => {
    if (waiting.value.length || offline.value) void catchUp()
  }, RETRY_MS)

  /** Something happened: stored on the disk when this resolves. */
  async function tell(event: E) {
    const id = thing.value?.id
    if (!id) return
    await kept.storeEvent(id, event)
    if (!waiting.value.some((one) => one.id === event.id)) {
      waiting.value = [...waiting.value, event]
    }
    void catchUp()
  }

  /** Asks for more than taking events in; the answer is what there is then. */
  async function ask(request: Request): Promise<Outcome<T>> {
    const outcome = await outcomeOf<T>(request)
    offline.value = outcome.kind === 'offline'
    if (outcome.kind === 'done') await keep(outcome.data)
    else if (outcome.kind === 'refused') {
      refusals.value.push({ message: outcome.detail } as (typeof refusals.value)[number])
    }
    return outcome
  }

  /** Lets a thing go that is over, and what was made from it. */
  async function letGo(also: QueryKey[]) {
    if (thing.value) await kept.forget(thing.value)
    queries.removeQueries({ queryKey: key })
    for (const queryKey of also) void queries.invalidateQueries({ queryKey })
  }

  /** Leaves a thing that is not there any more, and begins anew. */
  async function startOver() {
    if (thing.value) await kept.forget(thing.value)
    gone.value = ''
    waiting.value = []
    await refetch()
  }

  const unsent = computed(() => {
    const seen = new Set(thing.value?.seen)
    return waiting.value.filter((event) => !seen.has(event.id))
  })

  return {
    thing,
    error,
    refetch,
    waiting,
    unsent,
    offline,
    planning,
    refusals,
    gone,
    sendAll,
    tell,
    ask,
    letGo,
    startOver,
  }
}
