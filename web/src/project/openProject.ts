import { useQuery } from '@tanstack/vue-query'
import { useLocalStorage } from '@vueuse/core'
import { computed, watchEffect } from 'vue'
import { useRoute } from 'vue-router'
import { api, keys, type Project } from '../api'
import { usePlan } from './usePlan'

/** The project that was open last. */
export const lastId = useLocalStorage('grain-tally:last-project', '')

/** How a project is fetched; one of 2,000 parts is taken as it comes, and not compared. */
export function projectQuery(id: string) {
  return {
    queryKey: keys.project(id),
    queryFn: () => fetchProject(id),
    structuralSharing: false as const,
  }
}

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
  const route = useRoute()
  const id = computed(() => (route.meta.ofProject ? String(route.params.id) : lastId.value))
  const key = computed(() => keys.project(id.value))
  const { data } = useQuery({
    queryKey: key,
    queryFn: () => fetchProject(id.value),
    enabled: computed(() => Boolean(id.value)),
    shallow: true,
    structuralSharing: false,
  })
  const project = computed(() => data.value ?? undefined)
  watchEffect(() => {
    if (route.meta.ofProject && project.value) lastId.value = id.value
    else if (data.value === null && lastId.value === id.value) lastId.value = ''
  })
  return { id, project, plan: usePlan(project).plan }
}
