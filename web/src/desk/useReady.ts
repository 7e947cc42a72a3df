import { computed, ref, type Ref, watch } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { api, type Days, keys, type Project } from '../api'

const zone = Intl.DateTimeFormat().resolvedOptions().timeZone

/** What the newest change did to the day on which a project is ready, where one is wanted: in words,
 * empty for nothing. */
export function useReady(project: Ref<Project | undefined>, isPlanned: Ref<boolean>) {
  const told = ref('')
  const version = computed(() => project.value?.version ?? 0)
  const { data, isPlaceholderData } = useQuery({
    queryKey: computed(() => keys.days(project.value?.id ?? '', version.value, false)),
    enabled: computed(() => Boolean(project.value?.days_wanted && isPlanned.value)),
    queryFn: async () => {
      const answer = await api.GET('/api/projects/{project_id}/days', {
        params: { path: { project_id: project.value!.id }, query: { zone, thorough: false } },
      })
      return answer.data ?? null
    },
    placeholderData: (before: Days | null | undefined) => before,
    retry: false,
  })
  let known: Days | undefined
  watch(version, () => (told.value = ''))
  watch([data, isPlaceholderData], ([now, isOld]) => {
    if (!now || isOld) return
    const moved = known && known.version !== now.version && known.ready !== now.ready
    if (moved) told.value = `ready ${known!.ready} → ${now.ready}`
    known = now
  })
  return told
}
