import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, keys, outcomeOf, type Project } from '../api'

/** Every project with what its plan comes to, and those that were deleted and can be brought back. */
export function useProjects() {
  const queries = useQueryClient()
  const rows = useQuery({
    queryKey: keys.projects,
    queryFn: async () => {
      const { data } = await api.GET('/api/overview')
      if (!data) throw new Error('the projects could not be loaded')
      return data
    },
  })
  const deleted = useQuery({
    queryKey: keys.deletedProjects,
    queryFn: async () => (await api.GET('/api/deleted-projects')).data ?? [],
  })
  const fault = ref('')

  async function settle(request: Parameters<typeof outcomeOf>[0]) {
    const outcome = await outcomeOf<unknown>(request)
    const done = outcome.kind === 'done'
    fault.value = done ? '' : 'That was not done: the server does not answer. Try again.'
    void queries.invalidateQueries({ queryKey: keys.workshop })
    await queries.invalidateQueries({ queryKey: keys.projects })
  }

  const path = (project_id: string) => ({ params: { path: { project_id } } })

  return {
    rows: rows.data,
    isError: rows.isError,
    refetch: rows.refetch,
    deleted: deleted.data,
    fault,
    take: (project: Project) => {
      queries.setQueryData(keys.project(project.id), project)
      for (const queryKey of [keys.projects, keys.workshop])
        void queries.invalidateQueries({ queryKey })
    },
    remove: (id: string) => {
      queries.removeQueries({ queryKey: keys.project(id) })
      return settle(api.DELETE('/api/projects/{project_id}', path(id)))
    },
    bringBack: (id: string) => settle(api.POST('/api/projects/{project_id}/bring-back', path(id))),
    removeForGood: (id: string) =>
      settle(api.DELETE('/api/deleted-projects/{project_id}', path(id))),
  }
}
