import { useTemplateRef } from 'vue'
import { type Effect, type Outcome, outcomeOf } from '../api'
import type EffectOfSize from './EffectOfSize.vue'
import { useCells } from './useCells'

/** Cells of a table in which a size is corrected only after the parts that it changes were listed,
 * in the `EffectOfSize` that the table calls `effect`. */
export function useSizedCells<Row extends { id: string }>(of: {
  name: string
  called: (row: Row) => string
  /** Whether a field decides sizes of parts. */
  isSize: (field: string) => boolean
  ask: (row: Row, typed: Record<string, string>) => Parameters<typeof outcomeOf>[0]
  write: (row: Row, typed: Record<string, string>) => Promise<Outcome<unknown>>
}) {
  const effect = useTemplateRef<InstanceType<typeof EffectOfSize>>('effect')
  return useCells<Row>(of.name, of.called, (row, field: string, text) => {
    const typed = { [field]: text }
    const write = () => of.write(row, typed)
    if (!of.isSize(field) || !effect.value) return write()
    return effect.value.apply(outcomeOf<Effect[]>(of.ask(row, typed)), write)
  })
}
