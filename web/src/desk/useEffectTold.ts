import { computed, ref, watch } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { api, type Days, keys } from '../api'
import type { ProjectOnDesk } from '../project'

const zone = Intl.DateTimeFormat().resolvedOptions().timeZone

/** What the newest change did, in words: to the purchase, and to the day on which the project is
 * ready where one is wanted. Empty for nothing. */
export function useEffectTold(desk: Pick<ProjectOnDesk, 'project' | 'plan' | 'outdated'>) {
  const { project, plan, outdated } = desk
  const isPlanned = computed(() => plan.value?.status === 'done' && !outdated.value)
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
  return computed(() =>
    outdated.value ? '' : [plan.value?.effect, told.value].filter(Boolean).join('; '),
  )
}
