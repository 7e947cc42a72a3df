import type { Outcome } from '../api'
import { useDrafts } from './useDrafts'

/** Cells of a table that are saved one by one; what is typed in one and not saved survives a reload. */
export function useCells<Row extends { id: string }>(
  name: string,
  called: (row: Row) => string,
  save: (row: Row, field: never, text: string) => Promise<Outcome<unknown>>,
) {
  const { drafts, keep, drop } = useDrafts(name)

  return function cell<Field extends string & keyof Row>(row: Row, field: Field, label: string) {
    const key = `${row.id}.${field}`
    return {
      saved: String(row[field] ?? ''),
      draft: drafts.value[key],
      label: `${label} of ${called(row)}`,
      place: field,
      save: (text: string) => save(row, field as never, text),
      onKeep: (text: string) => keep(key, text),
      onDrop: () => drop(key),
    }
  }
}
