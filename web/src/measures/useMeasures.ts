import {
  api,
  type MeasureField,
  type Outcome,
  type Project,
  type ProjectChange,
  type RunFields,
  type RunPatch,
} from '../api'
import type { ProjectOnDesk } from '../project'

type Changed = Promise<Outcome<ProjectChange, Project>>

/** Every change of the measures and runs of a project. */
export function useMeasures(project_id: string, desk: Pick<ProjectOnDesk, 'change'>) {
  const path = { project_id }

  function addMeasure(line: string): Changed {
    return desk.change((seen) =>
      api.POST('/api/projects/{project_id}/measures', {
        params: { path },
        body: { ...seen, line },
      }),
    )
  }

  function changeMeasure(measure_id: string, field: MeasureField, text: string): Changed {
    return desk.change((seen) =>
      api.PATCH('/api/projects/{project_id}/measures/{measure_id}', {
        params: { path: { ...path, measure_id } },
        body: { ...seen, [field]: text },
      }),
    )
  }

  function removeMeasure(id: string): Changed {
    return desk.change((seen) =>
      api.POST('/api/projects/{project_id}/measures/remove', {
        params: { path },
        body: { ...seen, parts: [id] },
      }),
    )
  }

  function addRun(fields: RunFields): Changed {
    return desk.change((seen) =>
      api.POST('/api/projects/{project_id}/runs', {
        params: { path },
        body: { ...seen, ...fields },
      }),
    )
  }

  function changeRun(run_id: string, patch: RunPatch): Changed {
    return desk.change((seen) =>
      api.PATCH('/api/projects/{project_id}/runs/{run_id}', {
        params: { path: { ...path, run_id } },
        body: { ...seen, ...patch },
      }),
    )
  }

  function removeRun(id: string): Changed {
    return desk.change((seen) =>
      api.POST('/api/projects/{project_id}/runs/remove', {
        params: { path },
        body: { ...seen, parts: [id] },
      }),
    )
  }

  /** Writes the part that a run lays, from a line without a count. */
  function writePart(run_id: string, line: string): Changed {
    return desk.change((seen) =>
      api.POST('/api/projects/{project_id}/runs/{run_id}/part', {
        params: { path: { ...path, run_id } },
        body: { ...seen, line },
      }),
    )
  }

  return { addMeasure, changeMeasure, removeMeasure, addRun, changeRun, removeRun, writePart }
}

export type Measures = ReturnType<typeof useMeasures>
