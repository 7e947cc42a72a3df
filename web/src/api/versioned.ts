import { keepPreviousData, useQuery, useQueryClient, type QueryKey } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { useChanges, type Merge, type Seen } from './changes'
import { outcomeOf, type Outcome } from './client'

type Request = Parameters<typeof outcomeOf>[0]

/** A thing that has a version, and says what an undo takes back and a redo brings again. */
interface Versioned {
  version: number
  change: string | null
  undo: string | null
  redo: string | null
}

interface Held<T, A> {
  key: Ref<QueryKey>
  /** The newest state; `null` where there is none of that name. */
  fetch: () => Promise<T | null>
  undo: (seen: Seen) => Request
  redo: (seen: Seen) => Request
  /** What a change answers as the newest state; all of it where not said. */
  merge?: Merge<T, A>
  /** Whether a change answers another part of it than is looked at, so that it is fetched again. */
  isPart?: () => boolean
  /** What is worked out from it, and is looked at again when it has changed. */
  decides?: QueryKey[]
  /** What counts it where it is always in view, and is fetched again at once. */
  countedBy?: QueryKey
}

/**
 * The one way of holding a thing that has a version: it is fetched, kept, changed one change after
 * the other, each from the newest state, and stepped back and forth through what it was.
 */
export function useVersioned<T extends Versioned, A = T>(held: Held<T, A>) {
  const queries = useQueryClient()
  const { data, isError, refetch } = useQuery({
    queryKey: held.key,
    queryFn: held.fetch,
    placeholderData: keepPreviousData,
    shallow: true,
    structuralSharing: false,
  })
  const sent = useChanges<T, A>(held.key, held.merge)

  async function change(ask: (seen: Seen) => Request): Promise<Outcome<A, T>> {
    const outcome = await sent.change((seen) => outcomeOf<A, T>(ask(seen)))
    if (outcome.kind === 'done') {
      for (const queryKey of held.decides ?? [])
        void queries.invalidateQueries({ queryKey, refetchType: 'none' })
      if (held.countedBy) void queries.invalidateQueries({ queryKey: held.countedBy })
    }
    if (held.isPart?.()) await refetch()
    return outcome
  }

  return {
    thing: computed(() => data.value ?? undefined),
    missing: computed(() => data.value === null),
    isError,
    refetch,
    change,
    step: (way: 'undo' | 'redo') => change(held[way]),
    waiting: sent.waiting,
    offline: sent.offline,
  }
}

export type Hold = Omit<ReturnType<typeof useVersioned<Versioned>>, 'change' | 'step'> & {
  step: (way: 'undo' | 'redo') => Promise<unknown>
}
