import { useQuery } from '@tanstack/vue-query'
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { api, type Project } from '../api/client'
import { keys } from '../api/keys'
import { usePlan } from './usePlan'

const lastId = useLocalStorage('grain-tally:last-project', '')

export async function fetchProject(id: string): Promise<Project | null> {
  const { data, response } = await api.GET('/api/projects/{project_id}', {
    params: { path: { project_id: id } },
  })
  if (response.status === 404) return null
  if (!data) throw new Error('the project could not be loaded')
  return data
}

/** The project that is open, or was last: the header keeps the way back to it. */
export function useOpenProject() {
  const key = computed(() => keys.project(lastId.value))
  const { data } = useQuery({
    queryKey: key,
    queryFn: () => fetchProject(lastId.value),
    enabled: computed(() => Boolean(lastId.value)),
    shallow: true,
    structuralSharing: false,
  })
  const project = computed(() => data.value ?? undefined)
  return { project, plan: usePlan(project).plan, lastId }
}
