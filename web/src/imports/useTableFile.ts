import { ref, shallowRef, watch, type Ref } from 'vue'
import { outcomeOf, type Problem, type TableColumn, useFaults } from '../api'

type Answer = Parameters<typeof outcomeOf>[0]

/** What was read of a table. */
export interface Read {
  problems: Problem[]
  columns: TableColumn[]
  choices: string[]
}

/** A file with a table in a dialog: chosen, read, its columns changed and read again. `ask` reads it
 * with what the builder says each column is; it asks nothing where there is nothing to read. */
export function useTableFile<T extends Read>(
  open: Ref<boolean>,
  ask: (picked: File, columns: string) => Answer | undefined,
) {
  const file = shallowRef<File>()
  const reading = ref<T>()
  const columns = ref('')
  const busy = ref(false)
  const { problems, settle, clear } = useFaults('')

  watch(open, () => {
    file.value = undefined
    reading.value = undefined
    clear()
  })

  async function chosen(picked: File | undefined) {
    reading.value = undefined
    columns.value = ''
    file.value = picked
    await read()
  }

  async function choose(names: string[]) {
    columns.value = names.join(',')
    await read()
  }

  async function read() {
    clear()
    const request = file.value && ask(file.value, columns.value)
    if (!request) return
    busy.value = true
    const outcome = await outcomeOf<T>(request)
    busy.value = false
    if (!settle(outcome)) return
    reading.value = outcome.data
    problems.value = outcome.data.problems
  }

  return { file, reading, columns, busy, problems, settle, chosen, choose }
}

export type TableInHand<T extends Read> = ReturnType<typeof useTableFile<T>>
