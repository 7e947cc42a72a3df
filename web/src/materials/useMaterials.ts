import { computed } from 'vue'
import { api, keys, type MaterialFields, type Materials, useVersioned } from '../api'

/** The woods of the book and the builder's own materials, with every change of these. */
export function useMaterials() {
  const held = useVersioned<Materials>({
    key: computed(() => keys.materials),
    fetch: async () => {
      const { data: found } = await api.GET('/api/materials')
      if (!found) throw new Error('the materials could not be loaded')
      return found
    },
    undo: (body) => api.POST('/api/materials/undo', { body }),
    redo: (body) => api.POST('/api/materials/redo', { body }),
    decides: [keys.anyProject, keys.anyPlan, keys.anyYard, keys.rack],
    countedBy: keys.workshop,
  })

  return {
    ...held,
    write: (material_id: string, fields: MaterialFields) =>
      held.change((seen) =>
        api.PUT('/api/materials/{material_id}', {
          params: { path: { material_id } },
          body: { ...seen, ...fields },
        }),
      ),
    putAway: (material_id: string) =>
      held.change((body) =>
        api.POST('/api/materials/{material_id}/put-away', {
          params: { path: { material_id } },
          body,
        }),
      ),
  }
}

export type MaterialsInHand = ReturnType<typeof useMaterials>
