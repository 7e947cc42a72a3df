import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, watch } from 'vue'
import { useChanges } from '../api/changes'
import { api, outcomeOf, type PriceFields, type Yard, type YardPatch } from '../api/client'

/** One yard with its price list, and every change that can be made to it. */
export function useYard(id: string) {
  const queries = useQueryClient()
  const key = computed(() => ['yard', id])
  const path = { yard_id: id }
  const { data, isError, refetch } = useQuery({
    queryKey: key,
    queryFn: async (): Promise<Yard | null> => {
      const { data: found, response } = await api.GET('/api/yards/{yard_id}', { params: { path } })
      if (response.status === 404) return null
      if (!found) throw new Error('the yard could not be loaded')
      return found
    },
  })
  const { change, waiting, offline } = useChanges<Yard>(key)
  watch(
    () => data.value?.version,
    (now, before) => {
      if (before !== undefined && now !== before)
        void queries.invalidateQueries({ queryKey: ['project'], refetchType: 'none' })
    },
  )

  return {
    yard: computed(() => data.value ?? undefined),
    missing: computed(() => data.value === null),
    isError,
    refetch,
    waiting,
    offline,
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
