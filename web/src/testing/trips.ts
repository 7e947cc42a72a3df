import type { Trip, TripEvent, TripLine } from '../api'
import { NOTHING_SAID } from '../trip'

/** An event of which only some is said. */
export function eventOf(said: Partial<TripEvent>): TripEvent {
  return { ...NOTHING_SAID, id: '', kind: 'took', ...said }
}

/** A line of a trip of which only some is said. */
export function lineOf(said: Partial<TripLine>): TripLine {
  return {
    key: 'pine',
    called: '2x4 pine 8 ft',
    name: '2x4 pine',
    content: '',
    kind: 'plain',
    section: null,
    named_length: '8 ft',
    length: null,
    real_length: null,
    is_board: true,
    wanted: 0,
    spare: 0,
    taken: 0,
    put_back: 0,
    price: null,
    tag: null,
    each: null,
    listed: null,
    left: null,
    limited: false,
    boards: [],
    ...said,
  }
}

/** A trip with so many boards of one line wanted, of which only some is said. */
export function tripOf(said: Partial<Trip> = {}): Trip {
  return {
    id: 'trip',
    project: 'project',
    project_name: 'Boardwalk',
    yard: 'Tallow Street Yard',
    unit: 'in',
    finished: null,
    stale: false,
    seen: [],
    checks: [{ key: 'twist', name: 'twist', how: 'sight along it', checked: false }],
    racks: [{ name: 'pine', lines: [lineOf({ wanted: 5, each: '4.00', listed: '4.00' })] }],
    wanted: 5,
    taken: 0,
    total: '$20.00',
    in_cart: '$0.00',
    currency: 'USD',
    tax_rate: '0',
    tax_included: false,
    unpriced: 0,
    weight: '40 lb',
    longest: '8 ft',
    claim: '',
    said: '',
    said_by: '',
    left_out: [],
    refused: [],
    ...said,
  }
}
