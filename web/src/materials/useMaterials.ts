import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useChanges } from '../api/changes'
import { api, outcomeOf, type MaterialFields, type Materials } from '../api/client'

/** The woods of the book and the builder's own materials, with every change of these. */
export function useMaterials() {
  const queries = useQueryClient()
  const key = computed(() => ['materials'])
  const { data, isError, refetch } = useQuery({
    queryKey: key,
    queryFn: async () => {
      const { data: found } = await api.GET('/api/materials')
      if (!found) throw new Error('the materials could not be loaded')
      return found
    },
  })
  const { change, waiting, offline } = useChanges<Materials>(key)

  async function changed(asked: ReturnType<typeof change>) {
    const outcome = await asked
    for (const others of ['project', 'plan', 'yard', 'rack'])
      void queries.invalidateQueries({ queryKey: [others], refetchType: 'none' })
    return outcome
  }

  return {
    materials: computed(() => data.value),
    isError,
    refetch,
    waiting,
    offline,
    write: (material_id: string, fields: MaterialFields) =>
      changed(
        change((seen) =>
          outcomeOf(
            api.PUT('/api/materials/{material_id}', {
              params: { path: { material_id } },
              body: { ...seen, ...fields },
            }),
          ),
        ),
      ),
    putAway: (material_id: string) =>
      changed(
        change((seen) =>
          outcomeOf(
            api.POST('/api/materials/{material_id}/put-away', {
              params: { path: { material_id } },
              body: seen,
            }),
          ),
        ),
      ),
    step: (way: 'undo' | 'redo') =>
      changed(
        change((seen) =>
          outcomeOf(
            way === 'undo'
              ? api.POST('/api/materials/undo', { body: seen })
              : api.POST('/api/materials/redo', { body: seen }),
          ),
        ),
      ),
  }
}
