import type { BenchEvent, Cutting } from '../api'

/** The bench as it is with what waits to be sent counted in: cuts that are done, boards that wait to
 * be planned anew, and the event that an undo would take back. */
export interface BenchNow {
  done: Set<string>
  waiting: Set<number>
  last: string
}

function boardsOf(event: BenchEvent): number[] {
  if (event.board) return [event.board]
  return event.cuts.split(' ').map((cut) => Number(cut.split('.')[0]))
}

/** What a cutting comes to with events that the server has not taken in yet. */
export function benchNow(cutting: Cutting | undefined, unsent: BenchEvent[]): BenchNow {
  const undone = new Set(unsent.map((event) => event.undoes).filter(Boolean))
  const done = new Set(cutting?.done)
  const known = cutting?.last
  if (known && undone.has(known.id)) for (const cut of known.cuts) done.delete(cut)
  const waiting = new Set<number>()
  let last = known && !undone.has(known.id) ? known.id : ''
  for (const event of unsent) {
    if (event.kind === 'undone' || undone.has(event.id)) continue
    last = event.id
    if (event.kind === 'cut') for (const cut of event.cuts.split(' ')) done.add(cut)
    else for (const board of boardsOf(event)) waiting.add(board)
  }
  return { done, waiting, last }
}
