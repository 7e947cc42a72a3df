import 'fake-indexeddb/auto'
import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Trip, TripEvent } from '../api'
import { forgetSeen } from '../shared'
import { serverThat, type Asked } from '../testing/server'
import { eventOf, lineOf, tripOf } from '../testing/trips'
import { within } from '../testing/within'
import { keptTrips } from './stored'
import { useTrip } from './useTrip'

function eventsOf(asked: Asked): TripEvent[] {
  return (asked.body.events ?? []) as TripEvent[]
}

/** A server that takes every event in. */
function takesIn(trip: Trip) {
  const seen: string[] = []
  let taken = 0
  return (asked: Asked) => {
    for (const one of eventsOf(asked)) {
      if (seen.includes(one.id)) continue
      seen.push(one.id)
      if (one.kind === 'took') taken += one.count
    }
    const lines = [lineOf({ wanted: 5, taken })]
    return { data: { ...trip, seen: [...seen], taken, racks: [{ name: 'pine', lines }] } }
  }
}

async function settle() {
  for (let round = 0; round < 20; round += 1) {
    await flushPromises()
    await new Promise((resolve) => setTimeout(resolve))
  }
}

async function atYard() {
  const { it: at } = within(() => useTrip('project'))
  await settle()
  return at
}

const line = () => ({ ...lineOf({ wanted: 5 }), toTake: 5 })

beforeEach(async () => {
  await keptTrips.forget(tripOf())
  await forgetSeen()
})
afterEach(settle)

describe('a trip', () => {
  it('begins at the server and is kept', async () => {
    const asked = serverThat({ data: tripOf() })
    const at = await atYard()
    expect(asked.map((one) => one.path)).toEqual(['/api/projects/project/trips'])
    expect(at.trip.value?.id).toBe('trip')
    expect((await keptTrips.stored('project'))?.id).toBe('trip')
  })

  it('cannot begin without a connection, and says so', async () => {
    serverThat('no connection')
    const at = await atYard()
    expect(at.trip.value).toBeUndefined()
    expect(at.error.value?.message).toBe('there is no connection')
    expect(at.offline.value).toBe(true)
  })

  it('goes on from what is kept where there is none', async () => {
    await keptTrips.store(tripOf({ taken: 2 }))
    await keptTrips.storeEvent('trip', eventOf({ id: 'a', line: 'pine', count: 2 }))
    serverThat('no connection')
    const at = await atYard()
    expect(at.trip.value?.id).toBe('trip')
    expect(at.unsent.value.map((one) => one.id)).toEqual(['a'])
    expect(at.taken.value).toBe(2)
  })
})

describe('a tick', () => {
  it('is on the disk and on the screen before it is sent', async () => {
    await keptTrips.store(tripOf())
    serverThat('no connection')
    const at = await atYard()
    await at.took(line(), 1)
    expect((await keptTrips.waiting('trip')).map((one) => one.kind)).toEqual(['took'])
    expect(at.taken.value).toBe(1)
    expect(at.unsent.value.length).toBe(1)
  })

  it('is sent when the connection returns, once and in order', async () => {
    await keptTrips.store(tripOf())
    const answer = takesIn(tripOf())
    let connected = false
    const asked = serverThat((one) => (connected ? answer(one) : 'no connection'))
    const at = await atYard()
    await at.took(line(), 1)
    await at.tell('put back', { line: 'pine' })
    await at.took(line(), 2)
    await settle()
    connected = true
    window.dispatchEvent(new Event('online'))
    await settle()
    expect(eventsOf(asked.at(-1) as Asked).map((one) => one.kind)).toEqual([
      'took',
      'put back',
      'took',
    ])
    expect(at.unsent.value).toEqual([])
    expect(await keptTrips.waiting('trip')).toEqual([])
    expect(at.offline.value).toBe(false)
  })

  it('is not counted twice where the answer to it was lost', async () => {
    await keptTrips.store(tripOf())
    const answer = takesIn(tripOf())
    let asks = 0
    serverThat((one) => {
      const reply = answer(one)
      asks += 1
      return asks === 2 ? 'no connection' : reply
    })
    const at = await atYard()
    await at.took(line(), 2)
    await settle()
    window.dispatchEvent(new Event('online'))
    await settle()
    expect(at.taken.value).toBe(2)
    expect(at.unsent.value).toEqual([])
  })

  it('of the same line, pressed fast, takes no more than are wanted', async () => {
    await keptTrips.store(tripOf())
    serverThat('no connection')
    const at = await atYard()
    await Promise.all([at.took(line(), 3), at.took(line(), 3), at.took(line(), 3)])
    expect(at.taken.value).toBe(5)
  })

  it('that is refused is told and not kept', async () => {
    await keptTrips.store(tripOf())
    serverThat({ data: tripOf() }, (one) => ({
      data: tripOf({
        refused: eventsOf(one).map(({ id }) => ({ id, message: 'none of these is ticked' })),
      }),
    }))
    const at = await atYard()
    await at.tell('put back', { line: 'pine' })
    await settle()
    expect(at.refusals.value[0]?.message).toBe('none of these is ticked')
    expect(at.refusals.value[0]?.event?.kind).toBe('put back')
    expect(await keptTrips.waiting('trip')).toEqual([])
  })
})

describe('checks', () => {
  it('are ticked and unticked here before they are sent', async () => {
    await keptTrips.store(tripOf())
    serverThat('no connection')
    const at = await atYard()
    await at.tell('checked', { line: 'twist' })
    expect([...at.checked.value]).toEqual(['twist'])
    await at.tell('checked', { line: 'twist' })
    expect([...at.checked.value]).toEqual([])
  })
})

describe('money', () => {
  it('is the server’s, or about what this phone knows', async () => {
    await keptTrips.store(tripOf())
    serverThat('no connection')
    const at = await atYard()
    expect(at.money.value).toEqual({ total: '$20.00', inCart: '$0.00', about: false })
    await at.took(line(), 2)
    expect(at.money.value).toEqual({ total: '≈ $20.00', inCart: '≈ $8.00', about: true })
  })
})

describe('a trip that the server does not know any more', () => {
  it('says so and keeps what was ticked', async () => {
    await keptTrips.store(tripOf())
    serverThat({ status: 404, data: { detail: 'there is no such trip' } })
    const at = await atYard()
    await at.took(line(), 1)
    await settle()
    expect(at.gone.value).toBe('there is no such trip')
    expect((await keptTrips.waiting('trip')).length).toBe(1)
  })
})

describe('finishing', () => {
  it('waits until all is sent', async () => {
    await keptTrips.store(tripOf())
    serverThat('no connection')
    const at = await atYard()
    await at.took(line(), 1)
    expect(await at.finish(true)).toContain('not sent yet')
    expect(
      vi
        .mocked(fetch)
        .mock.calls.map(([one]) => (one as Request).url)
        .join(),
    ).not.toContain('finish')
  })
})
