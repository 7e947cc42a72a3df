import { computed } from 'vue'
import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { within } from '../testing/within'
import { useChanges, type Seen } from './changes'
import type { Outcome } from './client'
import { signedIn, signingInAgain } from './session'

interface Thing {
  version: number
  name: string
}

const KEY = ['thing']
const done = (version: number, name = 'now'): Outcome<Thing> => ({
  kind: 'done',
  data: { version, name },
})

function changing(merge?: (known: Thing | undefined, answer: Thing) => Thing | undefined) {
  const { it: changes, queries } = within(() =>
    useChanges<Thing>(
      computed(() => KEY),
      merge,
    ),
  )
  queries.setQueryData(KEY, { version: 3, name: 'before' })
  return { ...changes, queries, now: () => queries.getQueryData<Thing>(KEY) }
}

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

describe('a change', () => {
  it('names the version it saw, and its answer is the newest state', async () => {
    const { change, now } = changing()
    const ask = vi.fn(async (seen: Seen) => done(seen.version + 1))
    expect((await change(ask)).kind).toBe('done')
    expect(ask.mock.calls[0]?.[0].version).toBe(3)
    expect(now()).toEqual({ version: 4, name: 'now' })
  })

  it('waits for the one before it, and builds on that', async () => {
    const { change, waiting } = changing()
    const seen: number[] = []
    let answer: (outcome: Outcome<Thing>) => void = () => undefined
    const first = change((known) => {
      seen.push(known.version)
      return new Promise((resolve) => (answer = resolve))
    })
    const second = change(async (known) => {
      seen.push(known.version)
      return done(5)
    })
    await flushPromises()
    expect(seen).toEqual([3])
    expect(waiting.value).toBe(2)
    answer(done(4))
    await Promise.all([first, second])
    expect(seen).toEqual([3, 4])
    expect(waiting.value).toBe(0)
  })

  it('is sent again under the same id once a connection is back', async () => {
    const { change, offline } = changing()
    const ids: string[] = []
    const outcome = change(async ({ change_id }) => {
      ids.push(change_id)
      return ids.length < 3 ? { kind: 'offline' } : done(4)
    })
    await flushPromises()
    expect(offline.value).toBe(true)
    await vi.advanceTimersByTimeAsync(3_000)
    window.dispatchEvent(new Event('online'))
    expect((await outcome).kind).toBe('done')
    expect(offline.value).toBe(false)
    expect(new Set(ids).size).toBe(1)
    expect(ids.length).toBe(3)
  })

  it('is sent again once somebody has signed in', async () => {
    const { change } = changing()
    const ids: string[] = []
    const outcome = change(async ({ change_id }) => {
      ids.push(change_id)
      return ids.length < 2 ? { kind: 'signed-out' } : done(4)
    })
    await flushPromises()
    expect(signingInAgain.value).toBe(true)
    expect(ids.length).toBe(1)
    signedIn({ username: 'tove', is_demo: false } as never)
    expect((await outcome).kind).toBe('done')
    expect(signingInAgain.value).toBe(false)
    expect(new Set(ids).size).toBe(1)
  })

  it('that comes too late shows what is there now', async () => {
    const { change, now } = changing()
    const current = { version: 9, name: 'theirs' }
    const outcome = await change(async () => ({ kind: 'conflict', detail: 'changed', current }))
    expect(outcome.kind).toBe('conflict')
    expect(now()).toEqual(current)
  })

  it('that is refused leaves all as it was', async () => {
    const { change, now } = changing()
    await change(async () => ({ kind: 'refused', detail: 'no length', problems: [] }))
    expect(now()).toEqual({ version: 3, name: 'before' })
  })

  it('of which one fails does not keep the next from being made', async () => {
    const { change, waiting } = changing()
    await expect(change(async () => Promise.reject(new Error('broken')))).rejects.toThrow('broken')
    expect((await change(async () => done(4))).kind).toBe('done')
    expect(waiting.value).toBe(0)
  })

  it('is merged with what is known, or what it made is asked for', async () => {
    const { change, now, queries } = changing((known, answer) =>
      known && answer.version === known.version + 1 ? { ...answer, name: 'merged' } : undefined,
    )
    await change(async () => done(4))
    expect(now()?.name).toBe('merged')
    await change(async () => done(8))
    expect(queries.getQueryState(KEY)?.isInvalidated).toBe(true)
  })

  it('lets go of an older state that was asked for before it', async () => {
    const { change, now, queries } = changing()
    let answer: (thing: Thing) => void = () => undefined
    const asked = queries
      .fetchQuery({ queryKey: KEY, queryFn: () => new Promise<Thing>((r) => (answer = r)) })
      .catch(() => undefined)
    await change(async () => done(4))
    answer({ version: 3, name: 'late' })
    await asked
    expect(now()).toEqual({ version: 4, name: 'now' })
  })
})
