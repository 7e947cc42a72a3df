import { computed, type Ref } from 'vue'
import { api, outcomeOf, type Rack, type RackFields } from '../api/client'
import { useVersioned } from '../api/versioned'

/** A page of the rack as a search finds it, or one board, and every change that can be made. */
export function useRack(find: Ref<string>, page: Ref<number>, board: Ref<string | undefined>) {
  const { data, isError, refetch, change, waiting, offline } = useVersioned<Rack>({
    key: computed(() => ['rack', find.value, page.value, board.value]),
    fetch: async () => {
      const { data: found } = await api.GET('/api/rack', {
        params: { query: { find: find.value, page: page.value, board: board.value } },
      })
      if (!found) throw new Error('the rack could not be loaded')
      return found
    },
    isPart: () => Boolean(find.value || board.value) || page.value > 1,
    decides: ['plan', 'rack'],
  })

  return {
    rack: computed(() => data.value ?? undefined),
    isError,
    refetch,
    waiting,
    offline,
    writeBoard: (board_id: string, fields: RackFields) =>
      change((seen) =>
        outcomeOf(
          api.PUT('/api/rack/boards/{board_id}', {
            params: { path: { board_id } },
            body: { ...seen, ...fields },
          }),
        ),
      ),
    removeBoards: (boards: string[]) =>
      change((seen) =>
        outcomeOf(api.POST('/api/rack/boards/remove', { body: { ...seen, boards } })),
      ),
    step: (way: 'undo' | 'redo') =>
      change((seen) =>
        outcomeOf(
          way === 'undo'
            ? api.POST('/api/rack/undo', { body: seen })
            : api.POST('/api/rack/redo', { body: seen }),
        ),
      ),
  }
}
