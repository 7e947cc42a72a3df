import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, it } from 'vitest'
import { forgetSeen } from '../shared'
import { eventOf, tripOf } from '../testing/trips'
import { keptTrips } from './stored'

const took = (id: string) => eventOf({ id, line: 'pine' })

async function waitingIds(trip = 'trip') {
  return (await keptTrips.waiting(trip)).map((one) => one.id)
}

beforeEach(async () => {
  for (const id of ['trip', 'other']) await keptTrips.forget(tripOf({ id, project: `of ${id}` }))
  await forgetSeen()
})

describe('what a phone keeps', () => {
  it('is the trip of each project as it was last told', async () => {
    await keptTrips.store(tripOf({ project: 'boardwalk', taken: 1 }))
    await keptTrips.store(tripOf({ project: 'boardwalk', taken: 2 }))
    await keptTrips.store(tripOf({ id: 'other', project: 'cold frame' }))
    expect((await keptTrips.stored('boardwalk'))?.taken).toBe(2)
    expect((await keptTrips.stored('cold frame'))?.id).toBe('other')
    expect(await keptTrips.stored('gate')).toBeUndefined()
  })

  it('are events in their order, each with its trip', async () => {
    for (const id of ['c', 'a', 'b']) await keptTrips.storeEvent('trip', took(id))
    await keptTrips.storeEvent('other', took('d'))
    expect(await waitingIds()).toEqual(['c', 'a', 'b'])
    expect(await waitingIds('other')).toEqual(['d'])
  })

  it('are not those that the server has taken in or refused', async () => {
    for (const id of ['a', 'b', 'c']) await keptTrips.storeEvent('trip', took(id))
    await keptTrips.store(tripOf({ seen: ['a'], refused: [{ id: 'c', message: 'none of these' }] }))
    expect(await waitingIds()).toEqual(['b'])
  })

  it('is nothing of a trip that is forgotten', async () => {
    await keptTrips.store(tripOf())
    await keptTrips.storeEvent('trip', took('a'))
    await keptTrips.storeEvent('other', took('b'))
    await keptTrips.forget(tripOf())
    expect(await keptTrips.stored('project')).toBeUndefined()
    expect(await waitingIds()).toEqual([])
    expect(await waitingIds('other')).toEqual(['b'])
  })

  it('is what was not sent, also when somebody signs out', async () => {
    await keptTrips.store(tripOf())
    await keptTrips.storeEvent('trip', took('a'))
    await forgetSeen()
    expect(await keptTrips.stored('project')).toBeUndefined()
    expect(await waitingIds()).toEqual(['a'])
  })
})
