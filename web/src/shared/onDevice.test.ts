import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { openDB } from 'idb'
import { describe, expect, it, vi } from 'vitest'
import type { BenchEvent, Cutting, Trip, TripEvent } from '../api'
import { eventOf, tripOf } from '../testing/trips'

describe('what an older version kept on a device', () => {
  it('is there after the upgrade, and waits to be sent', async () => {
    const known = globalThis.indexedDB
    globalThis.indexedDB = new IDBFactory()
    try {
      const first = await openDB('grain-tally', 1, {
        upgrade(db) {
          db.createObjectStore('trips', { keyPath: 'project' })
          db.createObjectStore('events', { autoIncrement: true }).createIndex('trip', 'trip')
        },
      })
      await first.put('trips', tripOf({ project: 'gate' }))
      await first.add('events', { trip: 'trip', event: eventOf({ id: 'a', line: 'pine' }) })
      first.close()
      vi.resetModules()
      const { keptOnDevice } = await import('./onDevice')
      const trips = keptOnDevice<Trip, TripEvent>({
        things: 'trips',
        events: 'events',
        whose: 'trip',
      })
      expect((await trips.stored('gate'))?.id).toBe('trip')
      expect((await trips.waiting('trip')).map((one) => one.id)).toEqual(['a'])
      const cuttings = keptOnDevice<Cutting, BenchEvent>({
        things: 'cuttings',
        events: 'benchEvents',
        whose: 'cutting',
      })
      expect(await cuttings.stored('gate')).toBeUndefined()
    } finally {
      globalThis.indexedDB = known
      vi.resetModules()
    }
  })
})
