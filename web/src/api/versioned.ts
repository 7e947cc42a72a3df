import { keepPreviousData, useQuery, useQueryClient, type QueryKey } from '@tanstack/vue-query'
import type { Ref } from 'vue'
import { useChanges, type Merge } from './changes'

interface Held<T, A> {
  key: Ref<QueryKey>
  /** The newest state; `null` where there is none of that name. */
  fetch: () => Promise<T | null>
  /** What a change answers as the newest state; all of it where not said. */
  merge?: Merge<T, A>
  /** Whether a change answers another part of it than is looked at, so that it is fetched again. */
  isPart?: () => boolean
  /** What is worked out from it, and is looked at again when it has changed. */
  decides?: string[]
}

/**
 * The one way of holding a thing that has a version: it is fetched, kept, and changed one change after
 * the other, each from the newest state.
 */
export function useVersioned<T extends { version: number }, A = T>(held: Held<T, A>) {
  const queries = useQueryClient()
  const { data, isError, refetch } = useQuery({
    queryKey: held.key,
    queryFn: held.fetch,
    placeholderData: keepPreviousData,
    shallow: true,
    structuralSharing: false,
  })
  const sent = useChanges<T, A>(held.key, held.merge)

  async function change(ask: Parameters<typeof sent.change>[0]) {
    const outcome = await sent.change(ask)
    if (outcome.kind === 'done')
      for (const other of held.decides ?? [])
        void queries.invalidateQueries({ queryKey: [other], refetchType: 'none' })
    if (held.isPart?.()) await refetch()
    return outcome
  }

  return { data, isError, refetch, change, waiting: sent.waiting, offline: sent.offline }
}
