import { computed } from 'vue'
import { api, keys, type Toolbox, type ToolChange, useVersioned } from '../api'

/** The tools of the workshop, with every change of them. */
export function useTools() {
  const held = useVersioned<Toolbox>({
    key: computed(() => keys.tools),
    fetch: async () => {
      const { data: found } = await api.GET('/api/tools')
      if (!found) throw new Error('the tools could not be loaded')
      return found
    },
    undo: (body) => api.POST('/api/tools/undo', { body }),
    redo: (body) => api.POST('/api/tools/redo', { body }),
    decides: [keys.anyProject, keys.anyPlan, keys.anyShop],
    countedBy: keys.workshop,
  })

  return {
    ...held,
    write: (tool_id: string, told: ToolChange) =>
      held.change((seen) =>
        api.PUT('/api/tools/{tool_id}', {
          params: { path: { tool_id } },
          body: { ...seen, ...told },
        }),
      ),
    remove: (tool: string) =>
      held.change((seen) => api.POST('/api/tools/remove', { body: { ...seen, tools: [tool] } })),
  }
}

export type ToolsInHand = ReturnType<typeof useTools>
