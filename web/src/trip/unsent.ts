import type { Trip, TripEvent, TripLine } from '../api'

/** A line as it is with what was done here and not sent yet. */
export interface LineNow extends TripLine {
  toTake: number
}

/** A line with events that wait to be sent counted in, as the server will count them: what is in the
 * cart, how many there are, what the tag says. What else would be bought instead is not known before
 * it is planned; nor what held before something that the server has taken in already and that is
 * undone, but for a board that was measured. */
export function lineNow(line: TripLine, unsent: TripEvent[]): LineNow {
  const undone = new Set(unsent.map((event) => event.undoes).filter(Boolean))
  const found = { ...line }
  const fewer = (count: number) => {
    if (found.left !== null) found.left = Math.max(0, found.left - count)
  }
  for (const board of line.boards) {
    if (!undone.has(board.event)) continue
    if (board.kept) found.taken -= 1
    fewer(-1)
  }
  for (const event of unsent) {
    if (event.line !== line.key || undone.has(event.id)) continue
    if (event.kind === 'took') {
      found.taken += event.count
      fewer(event.count)
    } else if (event.kind === 'put back') {
      found.taken -= 1
      fewer(-1)
    } else if (event.kind === 'kept') {
      found.taken += 1
      fewer(1)
    } else if (event.kind === 'rejected') fewer(1)
    else if (event.kind === 'only') {
      found.limited = true
      found.left = Math.max(0, event.count - found.taken)
      found.wanted = Math.min(found.wanted, Math.max(event.count, found.taken))
    } else if (event.kind === 'tag') found.each = event.price.trim() || line.listed
  }
  return { ...found, toTake: Math.max(0, found.wanted - found.taken) }
}

/** What lines cost with tax, all of them and those in the cart, about: cents are rounded otherwise
 * where tax comes on top. */
export function moneyNow(trip: Trip, lines: LineNow[]): { total: string; inCart: string } {
  const format = new Intl.NumberFormat('en-US', { style: 'currency', currency: trip.currency })
  const tax = trip.tax_included ? 1 : 1 + Number(trip.tax_rate) / 100
  const sum = (count: (line: LineNow) => number) =>
    format.format(lines.reduce((so, line) => so + count(line) * Number(line.each ?? 0), 0) * tax)
  return {
    total: `≈ ${sum((line) => Math.max(line.wanted, line.taken))}`,
    inCart: `≈ ${sum((line) => line.taken)}`,
  }
}
