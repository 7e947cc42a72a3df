import type { Trip, TripEvent } from '../api'
import { keptOnDevice } from '../shared'

/** What a phone keeps of trips. */
export const keptTrips = keptOnDevice<Trip, TripEvent>({
  things: 'trips',
  events: 'events',
  whose: 'trip',
})
