import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, it } from 'vitest'
import { eventOf, tripOf } from '../testing/trips'
import { forgetTrip, forgetTrips, storedTrip, storeEvent, storeTrip, waitingEvents } from './stored'

const took = (id: string) => eventOf({ id, line: 'pine' })

async function waitingIds(trip = 'trip') {
  return (await waitingEvents(trip)).map((one) => one.id)
}

beforeEach(async () => {
  for (const id of ['trip', 'other']) await forgetTrip(tripOf({ id, project: `of ${id}` }))
  await forgetTrips()
})

describe('what a phone keeps', () => {
  it('is the trip of each project as it was last told', async () => {
    await storeTrip(tripOf({ project: 'boardwalk', taken: 1 }))
    await storeTrip(tripOf({ project: 'boardwalk', taken: 2 }))
    await storeTrip(tripOf({ id: 'other', project: 'cold frame' }))
    expect((await storedTrip('boardwalk'))?.taken).toBe(2)
    expect((await storedTrip('cold frame'))?.id).toBe('other')
    expect(await storedTrip('gate')).toBeUndefined()
  })

  it('are events in their order, each with its trip', async () => {
    for (const id of ['c', 'a', 'b']) await storeEvent('trip', took(id))
    await storeEvent('other', took('d'))
    expect(await waitingIds()).toEqual(['c', 'a', 'b'])
    expect(await waitingIds('other')).toEqual(['d'])
  })

  it('are not those that the server has taken in or refused', async () => {
    for (const id of ['a', 'b', 'c']) await storeEvent('trip', took(id))
    await storeTrip(tripOf({ seen: ['a'], refused: [{ id: 'c', message: 'none of these' }] }))
    expect(await waitingIds()).toEqual(['b'])
  })

  it('is nothing of a trip that is forgotten', async () => {
    await storeTrip(tripOf())
    await storeEvent('trip', took('a'))
    await storeEvent('other', took('b'))
    await forgetTrip(tripOf())
    expect(await storedTrip('project')).toBeUndefined()
    expect(await waitingIds()).toEqual([])
    expect(await waitingIds('other')).toEqual(['b'])
  })

  it('is what was not sent, also when somebody signs out', async () => {
    await storeTrip(tripOf())
    await storeEvent('trip', took('a'))
    await forgetTrips()
    expect(await storedTrip('project')).toBeUndefined()
    expect(await waitingIds()).toEqual(['a'])
  })
})
