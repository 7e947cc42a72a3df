import { openDB, type DBSchema } from 'idb'
import type { Trip, TripEvent } from '../api/client'

/**
 * What a phone keeps of trips, so that a tick survives a reload, a crash and a lost connection: the
 * trip as the server last told it, by project, and the events it has not taken in yet.
 */
interface Kept extends DBSchema {
  trips: { key: string; value: Trip }
  events: { key: number; value: WaitingEvent; indexes: { trip: string } }
}

export interface WaitingEvent {
  trip: string
  event: TripEvent
}

const opened = openDB<Kept>('grain-tally', 1, {
  upgrade(db) {
    db.createObjectStore('trips', { keyPath: 'project' })
    db.createObjectStore('events', { autoIncrement: true }).createIndex('trip', 'trip')
  },
})

export async function storedTrip(project: string): Promise<Trip | undefined> {
  return (await opened).get('trips', project)
}

/** Resolves once the event is on the disk. */
export async function storeEvent(trip: string, event: TripEvent): Promise<void> {
  const writing = (await opened).transaction('events', 'readwrite', { durability: 'strict' })
  await Promise.all([writing.store.add({ trip, event }), writing.done])
}

/** The events of a trip that were not sent yet, in order. */
export async function waitingEvents(trip: string): Promise<TripEvent[]> {
  const kept = await (await opened).getAllFromIndex('events', 'trip', trip)
  return kept.map((one) => one.event)
}

/** Keeps the trip as the server told it, and lets the events go that it has taken in or refused. */
export async function storeTrip(trip: Trip): Promise<void> {
  const gone = new Set([...trip.seen, ...trip.refused.map((one) => one.id)])
  const writing = (await opened).transaction(['trips', 'events'], 'readwrite')
  await writing.objectStore('trips').put(trip)
  let cursor = await writing.objectStore('events').index('trip').openCursor(trip.id)
  while (cursor) {
    if (gone.has(cursor.value.event.id)) await cursor.delete()
    cursor = await cursor.continue()
  }
  await writing.done
}

/** Forgets a trip that is over, with whatever was not sent. */
export async function forgetTrip(trip: Trip): Promise<void> {
  const writing = (await opened).transaction(['trips', 'events'], 'readwrite')
  await writing.objectStore('trips').delete(trip.project)
  let cursor = await writing.objectStore('events').index('trip').openCursor(trip.id)
  while (cursor) {
    await cursor.delete()
    cursor = await cursor.continue()
  }
  await writing.done
}

/** Forgets what was seen of trips, for whoever comes next; what was not sent stays for its owner. */
export async function forgetTrips(): Promise<void> {
  await (await opened).clear('trips')
}
