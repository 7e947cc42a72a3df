import { ref, type Ref } from 'vue'
import { type Project, useFaults } from '../api'
import { useDrafts } from '../shared'
import type { ProjectOnDesk } from './useProject'

/** What of a project is typed a line each. */
export type LineField =
  'joints' | 'hardware' | 'finishes' | 'rules' | 'work' | 'steps' | 'products' | 'weather'

/** A line that is kept and cannot be read: of which field, and what is wrong with it. */
export interface UnreadLine {
  place: string
  message: string
}

/** Fields of lines, each saved when it is left; what could not be saved is kept here. */
export function useTypedLines(
  project: () => Project,
  desk: Pick<ProjectOnDesk, 'changeSettings'>,
  first: LineField,
  unread: Ref<UnreadLine[]>,
) {
  const { drafts, keep, drop } = useDrafts(`${project().id}:lines`)
  const faults = useFaults(first)
  const saving = ref(false)

  function typed(field: LineField): string {
    return drafts.value[field] ?? project()[field]
  }

  function isUnsaved(field: LineField): boolean {
    return typed(field) !== project()[field]
  }

  async function save(field: LineField) {
    const text = typed(field)
    if (!isUnsaved(field)) return drop(field)
    saving.value = true
    const outcome = await desk.changeSettings({ [field]: text })
    saving.value = false
    if (faults.settle(outcome) && typed(field) === text) drop(field)
  }

  function bind(field: LineField) {
    const lines = unread.value.filter((one) => one.place === field).map((one) => one.message)
    return {
      modelValue: typed(field),
      errorMessages: isUnsaved(field) ? faults.at(field) : [...faults.at(field), ...lines],
      autoGrow: true,
      maxErrors: 20,
      spellcheck: false,
      persistentHint: true,
      'onUpdate:modelValue': (text: string) => keep(field, text),
      onBlur: () => save(field),
      onKeydown: (event: KeyboardEvent) => {
        if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void save(field)
      },
    }
  }

  return { bind, saving, faults }
}
