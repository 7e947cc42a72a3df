import { v4 as newId } from 'uuid'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, watchEffect } from 'vue'
import { useChanges } from '../api/changes'
import {
  api,
  outcomeOf,
  type Outcome,
  type PartField,
  type Plan,
  type Project,
  type ProjectPatch,
} from '../api/client'
import { fetchProject, useOpenProject } from '../projects/openProject'

const POLL_MS = 400
const SLOW_POLL_MS = 1200
const SLOW_AFTER_SECONDS = 4
const UNDER_WAY = ['queued', 'running']

/** One project with its live plan, and every change that can be made to it. */
export function useProject(id: string) {
  const queries = useQueryClient()
  const key = computed(() => ['project', id])
  const { lastId } = useOpenProject()
  const { data, isError, refetch } = useQuery({ queryKey: key, queryFn: () => fetchProject(id) })
  const project = computed(() => data.value ?? undefined)
  const missing = computed(() => data.value === null)
  watchEffect(() => {
    if (project.value) lastId.value = id
    else if (missing.value && lastId.value === id) lastId.value = ''
  })

  const planning = computed(() => UNDER_WAY.includes(project.value?.plan.status ?? ''))
  useQuery({
    queryKey: computed(() => ['plan-under-way', project.value?.plan.id]),
    enabled: planning,
    refetchInterval: () =>
      (project.value?.plan.seconds ?? 0) > SLOW_AFTER_SECONDS ? SLOW_POLL_MS : POLL_MS,
    queryFn: async () => {
      const plan = project.value?.plan
      if (!plan) return null
      const { data: now } = await api.GET('/api/plans/{plan_id}', {
        params: { path: { plan_id: plan.id } },
      })
      if (!now || project.value?.plan.id !== plan.id) return null
      if (UNDER_WAY.includes(now.status)) keepPlan(now)
      else await refetch()
      return now.status
    },
  })

  function keepPlan(plan: Plan) {
    const known = queries.getQueryData<Project>(key.value)
    if (known) queries.setQueryData(key.value, { ...known, plan })
  }

  async function stopPlanning() {
    const plan_id = project.value?.plan.id
    if (!plan_id) return
    await api.POST('/api/plans/{plan_id}/stop', { params: { path: { plan_id } } })
    await refetch()
  }

  /** Marks the plan in hand cut, or takes that back; the rack changes with it. */
  async function markCut(way: 'cut' | 'not-cut'): Promise<Outcome<Plan>> {
    const params = { path: { plan_id: project.value?.plan.id ?? '' } }
    const body = { change_id: newId() }
    const outcome = await outcomeOf<Plan>(
      way === 'cut'
        ? api.POST('/api/plans/{plan_id}/cut', { params, body })
        : api.POST('/api/plans/{plan_id}/not-cut', { params, body }),
    )
    if (outcome.kind === 'done') keepPlan(outcome.data)
    void queries.invalidateQueries({ queryKey: ['rack'] })
    return outcome
  }

  async function planAgain() {
    const { data: plan } = await api.POST('/api/projects/{project_id}/plans', {
      params: { path: { project_id: id } },
    })
    if (plan) keepPlan(plan)
  }

  const { change, waiting, offline } = useChanges<Project>(key)
  const path = { project_id: id }

  function addParts(text: string, columns = ''): Promise<Outcome<Project>> {
    return change((seen) =>
      outcomeOf(
        api.POST('/api/projects/{project_id}/parts', {
          params: { path },
          body: { ...seen, text, columns },
        }),
      ),
    )
  }

  function changePart(part_id: string, field: PartField, text: string) {
    return change((seen) =>
      outcomeOf(
        api.PATCH('/api/projects/{project_id}/parts/{part_id}', {
          params: { path: { ...path, part_id } },
          body: { ...seen, [field]: text },
        }),
      ),
    )
  }

  function removeParts(parts: string[]) {
    return change((seen) =>
      outcomeOf(
        api.POST('/api/projects/{project_id}/parts/remove', {
          params: { path },
          body: { ...seen, parts },
        }),
      ),
    )
  }

  function changeSettings(patch: ProjectPatch) {
    return change((seen) =>
      outcomeOf(
        api.PATCH('/api/projects/{project_id}', { params: { path }, body: { ...seen, ...patch } }),
      ),
    )
  }

  function step(way: 'undo' | 'redo') {
    return change((seen) =>
      outcomeOf(
        way === 'undo'
          ? api.POST('/api/projects/{project_id}/undo', { params: { path }, body: seen })
          : api.POST('/api/projects/{project_id}/redo', { params: { path }, body: seen }),
      ),
    )
  }

  return {
    project,
    missing,
    isError,
    refetch,
    planning,
    stopPlanning,
    planAgain,
    markCut,
    waiting,
    offline,
    change,
    addParts,
    changePart,
    removeParts,
    changeSettings,
    step,
  }
}

export type ProjectOnDesk = ReturnType<typeof useProject>
