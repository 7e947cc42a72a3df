import { describe, expect, it } from 'vitest'
import carts from '../../../carpentry/tests/samples/carts.json'
import type { Trip, TripEvent } from '../api'
import { eventOf, lineOf } from '../testing/trips'
import { lineNow, moneyNow } from './unsent'

type Told = Partial<TripEvent> & { id: string; kind: string }
type State = (typeof carts)[number]['states'][number]

function said(event: Told): TripEvent {
  return eventOf({ ...event, line: event.kind === 'undone' ? '' : 'pine' })
}

function at(given: (typeof carts)[number], state: State) {
  const boards = state.boards.map((one) => ({ ...one, idle: false, length: null, notes: [] }))
  return lineOf({ ...state, key: 'pine', listed: given.listed, boards } as object)
}

/** Whether an event takes back something that the server knows and the phone cannot. */
function isDark(event: Told, known: Told[]): boolean {
  const undone = known.find((one) => one.id === event.undoes)
  return Boolean(undone && undone.kind !== 'kept' && undone.kind !== 'rejected')
}

describe.each(carts)('$name', (given) => {
  const events = given.events as Told[]

  it('is counted as the server counts it, from wherever that is', () => {
    let checked = 0
    for (let known = 0; known <= events.length; known += 1)
      for (let now = known; now <= events.length; now += 1) {
        const waiting = events.slice(known, now)
        if (waiting.some((one) => isDark(one, events.slice(0, known)))) continue
        const line = lineNow(at(given, given.states[known] as State), waiting.map(said))
        const { taken, left, limited, each } = given.states[now] as State
        expect({
          taken: line.taken,
          left: line.left,
          limited: line.limited,
          each: line.each,
        }).toEqual({ taken, left, limited, each })
        checked += 1
      }
    expect(checked).toBeGreaterThan(events.length)
  })
})

describe('what is wanted', () => {
  it('is not more than there are', () => {
    const line = lineOf({ key: 'pine', wanted: 7, taken: 2 })
    const only = eventOf({ id: 'a', kind: 'only', line: 'pine', count: 5 })
    expect(lineNow(line, [only]).wanted).toBe(5)
    expect(lineNow(line, [only]).toTake).toBe(3)
  })

  it('is not fewer than were taken', () => {
    const line = lineOf({ key: 'pine', wanted: 7, taken: 4 })
    const only = eventOf({ id: 'a', kind: 'only', line: 'pine', count: 4 })
    expect(lineNow(line, [only]).wanted).toBe(4)
    expect(lineNow(line, [only]).toTake).toBe(0)
  })

  it('leaves other lines alone', () => {
    const line = lineOf({ key: 'cedar', wanted: 2, taken: 1 })
    const took = eventOf({ id: 'a', kind: 'took', line: 'pine', count: 1 })
    expect(lineNow(line, [took])).toEqual({ ...line, toTake: 1 })
  })
})

describe('money', () => {
  const lines = [
    lineOf({ key: 'pine', wanted: 3, taken: 1, each: '5.00' }),
    lineOf({ key: 'cedar', wanted: 1, taken: 2, each: '2.50' }),
    lineOf({ key: 'oak', wanted: 4, taken: 0, each: null }),
  ].map((line) => lineNow(line, []))

  it('adds tax where it comes on top', () => {
    const trip = { currency: 'USD', tax_included: false, tax_rate: '10' } as Trip
    expect(moneyNow(trip, lines)).toEqual({ total: '≈ $22.00', inCart: '≈ $11.00' })
  })

  it('adds none where prices include it', () => {
    const trip = { currency: 'EUR', tax_included: true, tax_rate: '19' } as Trip
    expect(moneyNow(trip, lines)).toEqual({ total: '≈ €20.00', inCart: '≈ €10.00' })
  })
})
