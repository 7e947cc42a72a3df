import { v4 as newId } from 'uuid'
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import {
  api,
  keys,
  type Outcome,
  outcomeOf,
  type Part,
  type PartField,
  type Plan,
  type Project,
  type ProjectChange,
  type ProjectPatch,
  useVersioned,
} from '../api'
import { fetchProject } from './openProject'
import { isUnderWay, keepPlan, usePlan } from './usePlan'

type Changed = Promise<Outcome<ProjectChange, Project>>

/** A project that was known, after a change of it; `undefined` where the change was of another. */
export function afterChange(
  known: Project | undefined,
  { seen, whole, gone, parts, ...rest }: ProjectChange,
): Project | undefined {
  if (!whole && known?.version !== seen) return undefined
  const now = new Map<string, Part>(whole ? [] : known?.parts.map((part) => [part.id, part]))
  for (const id of gone) now.delete(id)
  for (const part of parts) now.set(part.id, part)
  return { ...rest, parts: [...now.values()].sort((one, two) => one.position - two.position) }
}

/** One project with its live plan, and every change that can be made to it. */
export function useProject(id: string) {
  const queries = useQueryClient()
  const path = { project_id: id }
  const held = useVersioned<Project, ProjectChange>({
    key: computed(() => keys.project(id)),
    fetch: () => fetchProject(id),
    undo: (body) => api.POST('/api/projects/{project_id}/undo', { params: { path }, body }),
    redo: (body) => api.POST('/api/projects/{project_id}/redo', { params: { path }, body }),
    merge: afterChange,
    decides: [keys.projects],
  })
  const { thing: project, change } = held

  const { plan, isError: failed, outdated, settled } = usePlan(project)
  const planning = computed(() => isUnderWay(plan.value))

  async function stopPlanning() {
    const plan_id = plan.value?.id
    if (!plan_id) return
    const { data: stopped } = await api.POST('/api/plans/{plan_id}/stop', {
      params: { path: { plan_id } },
    })
    if (stopped) keepPlan(queries, stopped)
  }

  /** Marks the plan in hand cut, or takes that back; the rack changes with it. */
  async function markCut(way: 'cut' | 'not-cut'): Promise<Outcome<Plan>> {
    const params = { path: { plan_id: plan.value?.id ?? '' } }
    const body = { change_id: newId() }
    const outcome = await outcomeOf<Plan>(
      way === 'cut'
        ? api.POST('/api/plans/{plan_id}/cut', { params, body })
        : api.POST('/api/plans/{plan_id}/not-cut', { params, body }),
    )
    if (outcome.kind === 'done') keepPlan(queries, outcome.data)
    void queries.invalidateQueries({ queryKey: keys.rack })
    return outcome
  }

  async function planAgain() {
    const { data: again } = await api.POST('/api/projects/{project_id}/plans', {
      params: { path: { project_id: id }, query: { again: true } },
    })
    if (again) keepPlan(queries, again)
  }

  function addParts(text: string, columns = ''): Changed {
    return change((seen) =>
      api.POST('/api/projects/{project_id}/parts', {
        params: { path },
        body: { ...seen, text, columns },
      }),
    )
  }

  function changePart(part_id: string, field: PartField, text: string) {
    return change((seen) =>
      api.PATCH('/api/projects/{project_id}/parts/{part_id}', {
        params: { path: { ...path, part_id } },
        body: { ...seen, [field]: text },
      }),
    )
  }

  function removeParts(parts: string[]) {
    return change((seen) =>
      api.POST('/api/projects/{project_id}/parts/remove', {
        params: { path },
        body: { ...seen, parts },
      }),
    )
  }

  /** Marks all pieces of a part along its own edge, as a run. */
  function markAlongEdge(part_id: string) {
    return change((seen) =>
      api.POST('/api/projects/{project_id}/parts/{part_id}/edge-marks', {
        params: { path: { ...path, part_id } },
        body: seen,
      }),
    )
  }

  /** Lets a field of a part follow its shape again. */
  function followShape(shape_id: string, part: string, field: string) {
    return change((seen) =>
      api.POST('/api/projects/{project_id}/shapes/{shape_id}/follow', {
        params: { path: { ...path, shape_id } },
        body: { ...seen, part, field },
      }),
    )
  }

  function changeSettings(patch: ProjectPatch) {
    return change((seen) =>
      api.PATCH('/api/projects/{project_id}', { params: { path }, body: { ...seen, ...patch } }),
    )
  }

  return {
    ...held,
    project,
    plan,
    failed,
    outdated,
    settled,
    planning,
    stopPlanning,
    planAgain,
    markCut,
    addParts,
    changePart,
    removeParts,
    markAlongEdge,
    followShape,
    changeSettings,
  }
}

export type ProjectOnDesk = ReturnType<typeof useProject>
