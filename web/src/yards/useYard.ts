import { computed, type Ref } from 'vue'
import {
  api,
  outcomeOf,
  type PriceFields,
  type Quote,
  type Yard,
  type YardPatch,
} from '../api/client'
import { useVersioned } from '../api/versioned'

/** One yard with a page of the price lines a search finds, and every change that can be made. */
export function useYard(id: string, find: Ref<string>, page: Ref<number>) {
  const path = { yard_id: id }
  const { data, isError, refetch, change, waiting, offline } = useVersioned<Yard>({
    key: computed(() => ['yard', id, find.value, page.value]),
    fetch: async () => {
      const { data: found, response } = await api.GET('/api/yards/{yard_id}', {
        params: { path, query: { find: find.value, page: page.value } },
      })
      if (response.status === 404) return null
      if (!found) throw new Error('the yard could not be loaded')
      return found
    },
    isPart: () => Boolean(find.value) || page.value > 1,
    decides: ['project', 'plan', 'yard'],
  })

  return {
    yard: computed(() => data.value ?? undefined),
    missing: computed(() => data.value === null),
    isError,
    refetch,
    waiting,
    offline,
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
