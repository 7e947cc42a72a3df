import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, watch, type Ref } from 'vue'
import { useChanges } from '../api/changes'
import {
  api,
  outcomeOf,
  type Outcome,
  type PriceFields,
  type Quote,
  type Yard,
  type YardPatch,
} from '../api/client'

/** One yard with a page of the price lines a search finds, and every change that can be made. */
export function useYard(id: string, find: Ref<string>, page: Ref<number>) {
  const queries = useQueryClient()
  const key = computed(() => ['yard', id, find.value, page.value])
  const path = { yard_id: id }
  const { data, isError, refetch } = useQuery({
    queryKey: key,
    queryFn: async (): Promise<Yard | null> => {
      const { data: found, response } = await api.GET('/api/yards/{yard_id}', {
        params: { path, query: { find: find.value, page: page.value } },
      })
      if (response.status === 404) return null
      if (!found) throw new Error('the yard could not be loaded')
      return found
    },
    placeholderData: (before) => before,
  })
  const sent = useChanges<Yard>(key)

  /** A change answers with the first page of all lines: another page is fetched anew. */
  async function change(ask: Parameters<typeof sent.change>[0]): Promise<Outcome<Yard>> {
    const outcome = await sent.change(ask)
    if (find.value || page.value > 1) await refetch()
    return outcome
  }

  watch(
    () => data.value?.version,
    (now, before) => {
      if (before === undefined || now === before) return
      for (const others of ['project', 'plan'])
        void queries.invalidateQueries({ queryKey: [others], refetchType: 'none' })
      void queries.invalidateQueries({ queryKey: ['yard', id], refetchType: 'none' })
    },
  )

  return {
    yard: computed(() => data.value ?? undefined),
    missing: computed(() => data.value === null),
    isError,
    refetch,
    waiting: sent.waiting,
    offline: sent.offline,
    takeQuotes: (as_of: string, quotes: Quote[]) =>
      change((seen) =>
        outcomeOf(
          api.POST('/api/yards/{yard_id}/quotes', {
            params: { path },
            body: {
              ...seen,
              as_of,
              quotes: quotes.map(({ line, price, available }) => ({ line, price, available })),
            },
          }),
        ),
      ),
    changeYard: (patch: YardPatch) =>
      change((seen) =>
        outcomeOf(
          api.PATCH('/api/yards/{yard_id}', { params: { path }, body: { ...seen, ...patch } }),
        ),
      ),
    writeLine: (line_id: string, fields: PriceFields) =>
      change((seen) =>
        outcomeOf(
          api.PUT('/api/yards/{yard_id}/lines/{line_id}', {
            params: { path: { ...path, line_id } },
            body: { ...seen, ...fields },
          }),
        ),
      ),
    removeLines: (lines: string[]) =>
      change((seen) =>
        outcomeOf(
          api.POST('/api/yards/{yard_id}/lines/remove', {
            params: { path },
            body: { ...seen, lines },
          }),
        ),
      ),
    step: (way: 'undo' | 'redo') =>
      change((seen) =>
        outcomeOf(
          way === 'undo'
            ? api.POST('/api/yards/{yard_id}/undo', { params: { path }, body: seen })
            : api.POST('/api/yards/{yard_id}/redo', { params: { path }, body: seen }),
        ),
      ),
  }
}

export type YardInHand = ReturnType<typeof useYard>
