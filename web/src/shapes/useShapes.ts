import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { api, type Drawing, keys, type Outcome, type Project, type ProjectChange } from '../api'
import type { ProjectOnDesk } from '../project'

type Changed = Promise<Outcome<ProjectChange, Project>>
export type Measured = Record<string, string>

/** The room that there is for a drawing, in pixels. */
export interface Room {
  wide: number
  high: number
}

/** Every change of the shapes of a project. */
export function useShapes(project_id: string, desk: Pick<ProjectOnDesk, 'change'>) {
  const path = { project_id }

  function addShape(called: string, shape: string, measures: Measured): Changed {
    return desk.change((seen) =>
      api.POST('/api/projects/{project_id}/shapes', {
        params: { path },
        body: { ...seen, called, shape, measures },
      }),
    )
  }

  function changeShape(shape_id: string, patch: { called?: string; measures?: Measured }): Changed {
    return desk.change((seen) =>
      api.PATCH('/api/projects/{project_id}/shapes/{shape_id}', {
        params: { path: { ...path, shape_id } },
        body: { measures: {}, ...seen, ...patch },
      }),
    )
  }

  function letGo(shape_id: string, with_all: boolean): Changed {
    return desk.change((seen) =>
      api.POST('/api/projects/{project_id}/shapes/{shape_id}/let-go', {
        params: { path: { ...path, shape_id } },
        body: { ...seen, with_all },
      }),
    )
  }

  /** Lets all that a shape wrote follow it again. */
  function followAgain(shape_id: string): Changed {
    return desk.change((seen) =>
      api.POST('/api/projects/{project_id}/shapes/{shape_id}/follow', {
        params: { path: { ...path, shape_id } },
        body: { ...seen, field: '' },
      }),
    )
  }

  return { addShape, changeShape, letGo, followAgain }
}

export type Shapes = ReturnType<typeof useShapes>

/** The drawing of a shape as its project is now, laid out in a room. */
export function useDrawing(project: Ref<Project>, shape_id: Ref<string>, room: Ref<Room>) {
  const { data } = useQuery<Drawing>({
    queryKey: computed(() =>
      keys.drawing(project.value.id, project.value.version, shape_id.value, room.value),
    ),
    queryFn: async () => {
      const { data: drawn } = await api.GET(
        '/api/projects/{project_id}/shapes/{shape_id}/drawing',
        {
          params: {
            path: { project_id: project.value.id, shape_id: shape_id.value },
            query: { ...room.value },
          },
        },
      )
      if (!drawn) throw new Error('the drawing could not be made')
      return drawn
    },
    enabled: computed(() => shape_id.value !== '' && room.value.wide > 0),
    placeholderData: keepPreviousData,
  })
  return data
}
