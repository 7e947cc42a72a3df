import { ref } from 'vue'
import type { Outcome, Problem } from './client'

/** The faults of a form, by field. What belongs to no field is told at the `usual` one. */
export function useFaults(usual: string) {
  const problems = ref<Problem[]>([])

  function at(place: string): string[] {
    return problems.value.filter((p) => p.place === place).map((p) => p.message)
  }

  function tell(message: string) {
    problems.value = [{ place: usual, message }]
  }

  /** Whether it was done; what was not is told. */
  function settle<T>(outcome: Outcome<T, unknown>): outcome is { kind: 'done'; data: T } {
    problems.value = []
    if (outcome.kind === 'done') return true
    if (outcome.kind === 'refused' && outcome.problems.length)
      problems.value = outcome.problems.map((p) => ({ ...p, place: p.place || usual }))
    else if (outcome.kind === 'refused') tell(outcome.detail)
    else if (outcome.kind === 'conflict') tell(`${outcome.detail}: save again to set yours`)
    else tell('the server does not answer: try again')
    return false
  }

  return { problems, at, settle, clear: () => (problems.value = []) }
}
