import { v4 as newId } from 'uuid'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { useIntervalFn } from '@vueuse/core'
import { computed, ref } from 'vue'
import { api, type Days, type DayStep, keys, outcomeOf, type Project, type StepEvent } from '../api'
import type { ProjectOnDesk } from '../project'

const AGAIN_MS = 300_000 // as time goes by, what is next moves
const SOON_MS = 3_000 // others are worked out first
const zone = Intl.DateTimeFormat().resolvedOptions().timeZone

/** The days of a project, first as good as they come at once, then worked out, and everything that
 * happens of its steps. */
export function useDays(desk: ProjectOnDesk, project: () => Project) {
  const queries = useQueryClient()
  const version = computed(() => project().version)
  const path = computed(() => ({ project_id: project().id }))

  function ask(thorough: boolean) {
    return useQuery({
      queryKey: computed(() => keys.days(path.value.project_id, version.value, thorough)),
      queryFn: async () => {
        const { data } = await api.GET('/api/projects/{project_id}/days', {
          params: { path: path.value, query: { zone, thorough } },
        })
        if (!data) throw new Error('the days could not be loaded')
        return data
      },
      placeholderData: (before: Days | undefined) => before,
      refetchInterval: (query) =>
        thorough && query.state.data && !query.state.data.thorough ? SOON_MS : false,
    })
  }

  const first = ask(false)
  const whole = ask(true)
  const days = computed<Days | undefined>(() => {
    const [quick, worked] = [first.data.value, whole.data.value]
    if (!quick || !worked) return worked ?? quick
    const isOld = whole.isPlaceholderData.value || (whole.isFetching.value && told.value)
    return isOld ? quick : worked
  })
  /** Whether something happened that the whole answer does not know of yet. */
  const told = ref(false)
  const working = computed(() => whole.isFetching.value)
  const failed = computed(() => first.isError.value && !days.value)
  const refused = ref('')
  const busy = ref(false)

  useIntervalFn(() => void queries.invalidateQueries({ queryKey: keys.anyDays }), AGAIN_MS)

  /** Something happened of a step. */
  async function tell(kind: string, step: string, more: Partial<StepEvent> = {}) {
    busy.value = true
    const at = more.at || new Date().toISOString()
    const event: StepEvent = { answer: '', undoes: '', ...more, id: newId(), kind, step, at }
    const outcome = await outcomeOf<Days>(
      api.POST('/api/projects/{project_id}/days/events', {
        params: { path: path.value },
        body: { zone, events: [event] },
      }),
    )
    busy.value = false
    if (outcome.kind === 'done') {
      refused.value = outcome.data.refused.map((one) => one.message).join('; ')
      told.value = true
      queries.setQueryData(keys.days(path.value.project_id, version.value, false), outcome.data)
      await queries.invalidateQueries({
        queryKey: keys.days(path.value.project_id, version.value, true),
      })
      told.value = false
    } else if (outcome.kind === 'offline')
      refused.value = 'there is no connection: press again when it is back'
    else refused.value = 'detail' in outcome ? outcome.detail : 'sign in again'
    return !refused.value
  }

  /** Takes back what happened last of a step. */
  function undo(step: DayStep) {
    return step.last ? tell('undone', step.key, { undoes: step.last }) : Promise.resolve(false)
  }

  /** Says of a step what is otherwise: its line among the typed ones, or none. */
  function say(step: DayStep | undefined, text: string) {
    const lines = project()
      .steps.split('\n')
      .filter((line) => line.trim())
    const typed = text.trim()
    const at = step?.line ? lines.findIndex((line) => line.trim() === step.line) : -1
    if (at >= 0 && typed) lines[at] = typed
    else if (at >= 0) lines.splice(at, 1)
    else if (typed) lines.push(typed)
    return desk.changeSettings({ steps: lines.join('\n') })
  }

  return { days, working, failed, refused, busy, tell, undo, say, refetch: first.refetch }
}

export type ProjectDays = ReturnType<typeof useDays>
