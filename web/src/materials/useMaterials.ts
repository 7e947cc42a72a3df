import { computed } from 'vue'
import { api, outcomeOf, type MaterialFields, type Materials } from '../api/client'
import { useVersioned } from '../api/versioned'

/** The woods of the book and the builder's own materials, with every change of these. */
export function useMaterials() {
  const { data, isError, refetch, change, waiting, offline } = useVersioned<Materials>({
    key: computed(() => ['materials']),
    fetch: async () => {
      const { data: found } = await api.GET('/api/materials')
      if (!found) throw new Error('the materials could not be loaded')
      return found
    },
    decides: ['project', 'plan', 'yard', 'rack'],
  })

  return {
    materials: computed(() => data.value ?? undefined),
    isError,
    refetch,
    waiting,
    offline,
    write: (material_id: string, fields: MaterialFields) =>
      change((seen) =>
        outcomeOf(
          api.PUT('/api/materials/{material_id}', {
            params: { path: { material_id } },
            body: { ...seen, ...fields },
          }),
        ),
      ),
    putAway: (material_id: string) =>
      change((seen) =>
        outcomeOf(
          api.POST('/api/materials/{material_id}/put-away', {
            params: { path: { material_id } },
            body: seen,
          }),
        ),
      ),
    step: (way: 'undo' | 'redo') =>
      change((seen) =>
        outcomeOf(
          way === 'undo'
            ? api.POST('/api/materials/undo', { body: seen })
            : api.POST('/api/materials/redo', { body: seen }),
        ),
      ),
  }
}
