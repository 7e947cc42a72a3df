import { computed, type Ref } from 'vue'
import {
  api,
  keys,
  type PriceFields,
  type Quote,
  useVersioned,
  type Yard,
  type YardPatch,
} from '../api'

/** One yard with a page of the price lines a search finds, and every change that can be made. */
export function useYard(id: string, find: Ref<string>, page: Ref<number>) {
  const path = { yard_id: id }
  const held = useVersioned<Yard>({
    key: computed(() => keys.yard(id, find.value, page.value)),
    fetch: async () => {
      const { data: found, response } = await api.GET('/api/yards/{yard_id}', {
        params: { path, query: { find: find.value, page: page.value } },
      })
      if (response.status === 404) return null
      if (!found) throw new Error('the yard could not be loaded')
      return found
    },
    undo: (body) => api.POST('/api/yards/{yard_id}/undo', { params: { path }, body }),
    redo: (body) => api.POST('/api/yards/{yard_id}/redo', { params: { path }, body }),
    isPart: () => Boolean(find.value) || page.value > 1,
    decides: [keys.anyProject, keys.anyPlan, keys.anyYard, keys.yards],
  })

  return {
    ...held,
    takeQuotes: (as_of: string, quotes: Quote[]) =>
      held.change((seen) =>
        api.POST('/api/yards/{yard_id}/quotes', {
          params: { path },
          body: {
            ...seen,
            as_of,
            quotes: quotes.map(({ line, price, available }) => ({ line, price, available })),
          },
        }),
      ),
    changeYard: (patch: YardPatch) =>
      held.change((seen) =>
        api.PATCH('/api/yards/{yard_id}', { params: { path }, body: { ...seen, ...patch } }),
      ),
    writeLine: (line_id: string, fields: PriceFields) =>
      held.change((seen) =>
        api.PUT('/api/yards/{yard_id}/lines/{line_id}', {
          params: { path: { ...path, line_id } },
          body: { ...seen, ...fields },
        }),
      ),
    removeLines: (lines: string[]) =>
      held.change((seen) =>
        api.POST('/api/yards/{yard_id}/lines/remove', {
          params: { path },
          body: { ...seen, lines },
        }),
      ),
  }
}

export type YardInHand = ReturnType<typeof useYard>
