import { v4 as newId } from 'uuid'
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { api, keys, outcomeOf, useFaults, type Yard } from '../api'

export const UNITS = [
  { title: 'inches', value: 'in' },
  { title: 'millimetres', value: 'mm' },
]

export const ASKED_OF_A_YARD = [
  { name: 'name', label: 'Name', most: 100, wide: true },
  { name: 'currency', label: 'Currency', most: 3 },
  { name: 'unit', label: 'Bare lengths are', choices: UNITS },
] as const

/** A yard that is being made. */
export function useNewYard() {
  const queries = useQueryClient()
  const typed = ref<Record<string, string>>({ name: '', currency: 'USD', unit: 'in' })
  const faults = useFaults('name')

  /** The yard as it was made; nothing where it could not be. */
  async function make(): Promise<Yard | undefined> {
    const { name = '', currency = '', unit = '' } = typed.value
    const outcome = await outcomeOf<Yard>(
      api.POST('/api/yards', { body: { id: newId(), name, currency, unit } }),
    )
    if (!faults.settle(outcome)) return undefined
    for (const queryKey of [keys.yards, keys.workshop]) void queries.invalidateQueries({ queryKey })
    typed.value = { ...typed.value, name: '' }
    return outcome.data
  }

  return { typed, faults, make }
}
