import { useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { useChanges } from '../api/changes'
import { api, outcomeOf, type Rack, type RackFields } from '../api/client'

/** A page of the rack as a search finds it, or one board, and every change that can be made. */
export function useRack(find: Ref<string>, page: Ref<number>, board: Ref<string | undefined>) {
  const key = computed(() => ['rack', find.value, page.value, board.value])
  const { data, isError, refetch } = useQuery({
    queryKey: key,
    queryFn: async () => {
      const { data: found } = await api.GET('/api/rack', {
        params: { query: { find: find.value, page: page.value, board: board.value } },
      })
      if (!found) throw new Error('the rack could not be loaded')
      return found
    },
    placeholderData: (before) => before,
  })
  const { change, waiting, offline } = useChanges<Rack>(key)

  async function changed(asked: Promise<Awaited<ReturnType<typeof change>>>) {
    const outcome = await asked
    if (find.value || page.value > 1 || board.value) await refetch()
    return outcome
  }

  return {
    rack: computed(() => data.value),
    isError,
    refetch,
    waiting,
    offline,
    writeBoard: (board_id: string, fields: RackFields) =>
      changed(
        change((seen) =>
          outcomeOf(
            api.PUT('/api/rack/boards/{board_id}', {
              params: { path: { board_id } },
              body: { ...seen, ...fields },
            }),
          ),
        ),
      ),
    removeBoards: (boards: string[]) =>
      changed(
        change((seen) =>
          outcomeOf(api.POST('/api/rack/boards/remove', { body: { ...seen, boards } })),
        ),
      ),
    step: (way: 'undo' | 'redo') =>
      changed(
        change((seen) =>
          outcomeOf(
            way === 'undo'
              ? api.POST('/api/rack/undo', { body: seen })
              : api.POST('/api/rack/redo', { body: seen }),
          ),
        ),
      ),
  }
}
