import { computed, type InjectionKey, type Ref } from 'vue'
import type { Project } from '../api'

/** Shows the marks of a run. */
export const SHOW_RUN: InjectionKey<(id: string) => void> = Symbol('show run')
const USUAL = ['kerf', 'first trim', 'last trim']
const OF_PARTS = ['length', 'width', 'thickness', 'quantity']
const OF_RUNS = ['gap', 'count', 'last']

/** What a formula of a project can name: its measures, then runs, parts, and what is always known. */
export function useFormulaNames(project: Ref<Project | undefined>) {
  return computed(() => {
    const { measures = [], shapes = [], runs = [], parts = [] } = project.value ?? {}
    return [
      ...measures.map((one) => one.name),
      ...shapes.flatMap((one) => Object.keys(one.values).map((name) => `${one.called} ${name}`)),
      ...runs.flatMap((run) => OF_RUNS.map((said) => `${said} of ${run.name}`)),
      ...parts.flatMap((part) => OF_PARTS.map((said) => `${said} of ${part.mark}`)),
      ...USUAL,
    ]
  })
}
