import type { Trip, TripEvent } from '../api/client'
import { keptOnDevice } from '../shared/onDevice'

/** What a phone keeps of trips. */
export const keptTrips = keptOnDevice<Trip, TripEvent>({
  things: 'trips',
  events: 'events',
  whose: 'trip',
})
