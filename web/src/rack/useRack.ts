import { computed, type Ref } from 'vue'
import { api, keys, type Rack, type RackFields, useVersioned } from '../api'

/** A page of the rack as a search finds it, or one board, and every change that can be made. */
export function useRack(find: Ref<string>, page: Ref<number>, board: Ref<string | undefined>) {
  const held = useVersioned<Rack>({
    key: computed(() => keys.boards(find.value, page.value, board.value)),
    fetch: async () => {
      const { data: found } = await api.GET('/api/rack', {
        params: { query: { find: find.value, page: page.value, board: board.value } },
      })
      if (!found) throw new Error('the rack could not be loaded')
      return found
    },
    undo: (body) => api.POST('/api/rack/undo', { body }),
    redo: (body) => api.POST('/api/rack/redo', { body }),
    isPart: () => Boolean(find.value || board.value) || page.value > 1,
    decides: [keys.anyPlan, keys.rack],
    countedBy: keys.workshop,
  })

  return {
    ...held,
    writeBoard: (board_id: string, fields: RackFields) =>
      held.change((seen) =>
        api.PUT('/api/rack/boards/{board_id}', {
          params: { path: { board_id } },
          body: { ...seen, ...fields },
        }),
      ),
    removeBoards: (boards: string[]) =>
      held.change((seen) => api.POST('/api/rack/boards/remove', { body: { ...seen, boards } })),
  }
}

export type RackInHand = ReturnType<typeof useRack>
