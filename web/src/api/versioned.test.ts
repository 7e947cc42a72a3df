import { flushPromises } from '@vue/test-utils'
import { QueryObserver, type QueryKey } from '@tanstack/vue-query'
import { computed } from 'vue'
import { describe, expect, it, vi } from 'vitest'
import { within } from '../testing/within'
import { useVersioned } from './versioned'

interface Thing {
  version: number
  name: string
  change: string | null
  undo: string | null
  redo: string | null
}
const thing = (version: number, name: string): Thing => ({
  version,
  name,
  change: null,
  undo: null,
  redo: null,
})
const answered = (data: unknown, status = 200) =>
  Promise.resolve(
    status === 200
      ? { data, response: new Response(null, { status }) }
      : { error: data, response: new Response(null, { status }) },
  )

function hold(
  fetch: () => Promise<Thing | null>,
  more: { isPart?: () => boolean; countedBy?: QueryKey } = {},
) {
  const undo = vi.fn((seen: { version: number }) => answered(thing(seen.version + 1, 'before')))
  const redo = vi.fn((seen: { version: number }) => answered(thing(seen.version + 1, 'again')))
  const { it: held, queries } = within(() =>
    useVersioned<Thing>({
      key: computed(() => ['thing']),
      fetch,
      undo,
      redo,
      decides: [['plan']],
      ...more,
    }),
  )
  return { ...held, queries, undo, redo }
}

describe('a thing that is held', () => {
  it('is fetched', async () => {
    const held = hold(async () => thing(1, 'first'))
    expect(held.thing.value).toBeUndefined()
    await flushPromises()
    expect(held.thing.value?.name).toBe('first')
    expect(held.missing.value).toBe(false)
  })

  it('may not be there', async () => {
    const held = hold(async () => null)
    await flushPromises()
    expect(held.missing.value).toBe(true)
    expect(held.thing.value).toBeUndefined()
  })

  it('may not be reached', async () => {
    const held = hold(async () => Promise.reject(new Error('no connection')))
    await flushPromises()
    expect(held.isError.value).toBe(true)
  })

  it('is changed, and what rests on it is looked at again', async () => {
    const held = hold(async () => thing(1, 'first'))
    await flushPromises()
    held.queries.setQueryData(['plan', 'a'], 'old')
    const outcome = await held.change(({ version }) => answered(thing(version + 1, 'second')))
    expect(outcome.kind).toBe('done')
    expect(held.thing.value?.name).toBe('second')
    expect(held.queries.getQueryState(['plan', 'a'])?.isInvalidated).toBe(true)
  })

  it('is counted anew where its count is always in view', async () => {
    const count = vi.fn(async () => 1)
    const held = hold(async () => thing(1, 'first'), { countedBy: ['counts'] })
    new QueryObserver(held.queries, { queryKey: ['counts'], queryFn: count }).subscribe(() => null)
    await flushPromises()
    await held.change(({ version }) => answered(thing(version + 1, 'second')))
    await flushPromises()
    expect(count).toHaveBeenCalledTimes(2)
  })

  it('is not looked at again where nothing was changed', async () => {
    const held = hold(async () => thing(1, 'first'))
    await flushPromises()
    held.queries.setQueryData(['plan', 'a'], 'old')
    const outcome = await held.change(() => answered({ detail: 'no' }, 422))
    expect(outcome.kind).toBe('refused')
    expect(held.queries.getQueryState(['plan', 'a'])?.isInvalidated).toBe(false)
  })

  it('is stepped back and forth from the version that is there', async () => {
    const held = hold(async () => thing(4, 'now'))
    await flushPromises()
    await held.step('undo')
    expect(held.undo.mock.calls[0]?.[0].version).toBe(4)
    expect(held.thing.value?.name).toBe('before')
    await held.step('redo')
    expect(held.redo.mock.calls[0]?.[0].version).toBe(5)
    expect(held.thing.value?.name).toBe('again')
  })

  it('of which only a part is looked at is fetched again after a change', async () => {
    const fetch = vi.fn(async () => thing(1, 'page'))
    const held = hold(fetch, { isPart: () => true })
    await flushPromises()
    await held.change(({ version }) => answered(thing(version + 1, 'whole')))
    expect(fetch).toHaveBeenCalledTimes(2)
    expect(held.thing.value?.name).toBe('page')
  })
})
