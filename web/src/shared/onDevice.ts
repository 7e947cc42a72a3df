import { type DBSchema, type IDBPDatabase, openDB } from 'idb'
import type { BenchEvent, Cutting, Trip, TripEvent } from '../api'

/**
 * What a device keeps, so that a press survives a reload, a crash and a lost connection: trips and
 * cuttings as the server last told them, by project, and the events it has not taken in yet.
 */
interface OnDevice extends DBSchema {
  trips: { key: string; value: Trip }
  events: {
    key: number
    value: { trip: string; event: TripEvent }
    indexes: { trip: string }
  }
  cuttings: { key: string; value: Cutting }
  benchEvents: {
    key: number
    value: { cutting: string; event: BenchEvent }
    indexes: { cutting: string }
  }
}

const FIRST_VERSION = 1
let opening: Promise<IDBPDatabase<OnDevice>> | undefined

/** The device's store, opened by the first who wants it. */
function device(): Promise<IDBPDatabase<OnDevice>> {
  opening ??= openDB<OnDevice>('grain-tally', 2, {
    upgrade(db, before) {
      if (before < FIRST_VERSION) {
        db.createObjectStore('trips', { keyPath: 'project' })
        db.createObjectStore('events', { autoIncrement: true }).createIndex('trip', 'trip')
      }
      db.createObjectStore('cuttings', { keyPath: 'project' })
      db.createObjectStore('benchEvents', { autoIncrement: true }).createIndex('cutting', 'cutting')
    },
    blocking: () => void opening?.then((open) => open.close()),
  })
  return opening
}

/** Something that events happen to, as the server tells it: which it has taken in, which not. */
export interface Subject {
  id: string | null
  project: string
  seen: string[]
  refused: { id: string; message: string }[]
}

/** How one kind of thing is kept, with what happened to it. */
export interface Kept<T, E> {
  stored: (project: string) => Promise<T | undefined>
  /** Resolves once the event is on the disk. */
  storeEvent: (id: string, event: E) => Promise<void>
  /** The events that were not sent yet, in order. */
  waiting: (id: string) => Promise<E[]>
  /** Keeps the thing as the server told it, without the events that it has taken in or refused. */
  store: (thing: T) => Promise<void>
  /** Forgets a thing that is over, with whatever was not sent. */
  forget: (thing: T) => Promise<void>
}

type Names =
  | { things: 'trips'; events: 'events'; whose: 'trip' }
  | { things: 'cuttings'; events: 'benchEvents'; whose: 'cutting' }

/** The one way in which things are kept, in stores of these names. */
export function keptOnDevice<T extends Subject, E extends { id: string }>(
  names: Names,
): Kept<T, E> {
  const { things, events, whose } = names

  async function without(id: string, gone: (event: string) => boolean, put?: T, project?: string) {
    const writing = (await device()).transaction([things, events], 'readwrite')
    if (put) await writing.objectStore(things).put(put as never)
    else if (project) await writing.objectStore(things).delete(project)
    let cursor = await writing
      .objectStore(events)
      .index(whose as never)
      .openCursor(IDBKeyRange.only(id))
    while (cursor) {
      if (gone(cursor.value.event.id)) await cursor.delete()
      cursor = await cursor.continue()
    }
    await writing.done
  }

  return {
    stored: async (project) => (await device()).get(things, project) as Promise<T | undefined>,
    async storeEvent(id, event) {
      const writing = (await device()).transaction(events, 'readwrite', { durability: 'strict' })
      await Promise.all([writing.store.add({ [whose]: id, event } as never), writing.done])
    },
    async waiting(id) {
      const kept = await (
        await device()
      ).getAllFromIndex(events, whose as never, IDBKeyRange.only(id))
      return kept.map((one) => one.event as unknown as E)
    },
    store: (thing) => {
      const known = new Set([...thing.seen, ...thing.refused.map((one) => one.id)])
      return without(thing.id ?? '', (id) => known.has(id), thing)
    },
    forget: (thing) => without(thing.id ?? '', () => true, undefined, thing.project),
  }
}

/** Forgets what was seen, for whoever comes next; what was not sent stays for its owner. */
export async function forgetSeen(): Promise<void> {
  const open = await device()
  await Promise.all([open.clear('trips'), open.clear('cuttings')])
}
