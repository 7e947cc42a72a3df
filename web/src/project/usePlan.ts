import { useQuery, useQueryClient, type QueryClient } from '@tanstack/vue-query'
import { computed, ref, type Ref } from 'vue'
import { api, keys, type Plan } from '../api'

const POLL_MS = 400
const SLOW_POLL_MS = 1200
const SLOW_AFTER_SECONDS = 4
const SHARE = 6 // of the time, which looking at a plan takes at the most
const UNDER_WAY = ['queued', 'running']
const states = new Map<string, string>()

/** Whether better boards may still come. */
export function isUnderWay(plan: Plan | undefined): boolean {
  return UNDER_WAY.includes(plan?.status ?? '')
}

/** The plan of a project as it is: asked for, or, where it is known, looked at again. */
async function askFor(project: string, known: Plan | undefined): Promise<Plan> {
  if (known) {
    const { data, response } = await api.GET('/api/plans/{plan_id}', {
      params: { path: { plan_id: known.id } },
      headers: { 'If-None-Match': states.get(known.id) ?? '' },
    })
    if (response.status === 304) return known
    if (data) {
      states.set(data.id, response.headers.get('ETag') ?? '')
      return data
    }
  }
  const { data } = await api.POST('/api/projects/{project_id}/plans', {
    params: { path: { project_id: project } },
  })
  if (!data) throw new Error('there is no plan yet')
  return data
}

/** Puts a plan in hand where it is looked for. */
export function keepPlan(queries: QueryClient, plan: Plan) {
  states.delete(plan.id)
  queries.setQueryData(keys.plan(plan.project, plan.version), plan)
}

/** The plan of a version of a project, made when it is first asked for; until it comes, the one
 * before it. */
export function usePlan(project: Ref<{ id: string; version: number } | undefined>) {
  const queries = useQueryClient()
  const key = computed(() => keys.plan(project.value?.id ?? '', project.value?.version))
  const took = ref(0)
  const { data, isError } = useQuery({
    queryKey: key,
    enabled: computed(() => Boolean(project.value)),
    queryFn: async () => {
      const started = performance.now()
      const known = queries.getQueryData<Plan>(key.value)
      const plan = await askFor(project.value?.id ?? '', known)
      if (plan !== known) took.value = performance.now() - started
      return plan
    },
    shallow: true,
    structuralSharing: false,
    placeholderData: (before: Plan | undefined) =>
      before?.project === project.value?.id ? before : undefined,
    refetchInterval: (query) => {
      if (!isUnderWay(query.state.data)) return false
      if (!query.state.data?.materials.some((one) => one.layouts.length)) return POLL_MS
      const slow = (query.state.data?.seconds ?? 0) > SLOW_AFTER_SECONDS
      return Math.max(slow ? SLOW_POLL_MS : POLL_MS, SHARE * took.value)
    },
  })

  /** The plan of the version that is in hand now, once it is known. */
  function settled(): Promise<Plan> {
    const { id, version } = project.value ?? { id: '', version: 0 }
    const queryKey = keys.plan(id, version)
    return queries.ensureQueryData({
      queryKey,
      queryFn: () => askFor(id, queries.getQueryData<Plan>(queryKey)),
    })
  }

  /** Whether what is in hand is the plan of another version. */
  const outdated = computed(() => data.value?.version !== project.value?.version)

  return { plan: data, isError, outdated, settled }
}
