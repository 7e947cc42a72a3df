import 'fake-indexeddb/auto'
import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { BenchEvent, Cutting } from '../api'
import { forgetSeen } from '../shared'
import { press } from '../testing/press'
import { type Asked, serverThat } from '../testing/server'
import { cardOf, cuttingOf } from '../testing/shop'
import { shown } from '../testing/shown'
import ShopPage from './ShopPage.vue'

beforeEach(async () => {
  sessionStorage.clear()
  localStorage.clear()
  await forgetSeen()
})

const CARDS = [
  cardOf([1, 2, 3]),
  cardOf([1, 2], { key: 'stop 9', rows: cardOf([4]).rows, heading: 'Stop at 9' }),
]
let count = 0

/** A server that takes every event in, and counts cuts as done. */
function bench(first: Partial<Cutting> = {}) {
  let now = cuttingOf(CARDS, { id: `cutting ${(count += 1)}`, ...first })
  let isUp = true
  const asked = serverThat(({ path, body }: Asked) => {
    if (!isUp) return 'no connection'
    if (path.endsWith('/finish')) now = { ...now, finished: true }
    else if (path.endsWith('/cuttings')) now = { ...now, id: `cutting ${count}` }
    for (const event of (body.events ?? []) as BenchEvent[]) {
      const cuts = event.cuts.split(' ').filter(Boolean)
      const done = event.kind === 'cut' ? [...now.done, ...cuts] : now.done
      const left =
        event.kind === 'undone' ? done.filter((one) => !now.last?.cuts.includes(one)) : done
      const last = event.kind === 'cut' ? { id: event.id, said: '', cuts } : null
      now = { ...now, done: left, seen: [...now.seen, event.id], last }
    }
    return { data: now }
  })
  return { asked, connect: (up: boolean) => (isUp = up) }
}

async function page(first: Partial<Cutting> = {}) {
  const server = bench(first)
  const it = shown(ShopPage)
  await vi.waitFor(() => expect(it.text()).toContain('Stand'), { timeout: 4000 })
  const told = () => server.asked.flatMap((one) => (one.body.events ?? []) as BenchEvent[])
  return { it, ...server, told, words: () => document.body.textContent.replace(/\s+/g, ' ') }
}

async function until(words: () => string, said: string) {
  await vi.waitFor(() => expect(words()).toContain(said), { timeout: 4000 })
}

describe('at the saw', () => {
  it('begins from the list of set-ups, in either order', async () => {
    const { words, asked } = await page({ id: null })
    expect(words()).toContain('no order takes fewer set-ups')
    expect(words()).toContain('Mark every first end.')
    await press('Start cutting')
    expect(asked.at(-1)?.path).toMatch(/cuttings$/)
    await until(words, 'Cut, board 1')
  })

  it('presses one board after the other, then goes to the next set-up', async () => {
    const { words, told } = await page()
    await until(words, 'Cut, board 1')
    await press('Cut, board 1')
    await until(words, 'Cut, board 2')
    await press('The whole set-up is cut')
    await until(words, 'Cut, board 4')
    await vi.waitFor(() => expect(told()).toHaveLength(2))
    expect(told().map((one) => [one.kind, one.cuts])).toEqual([
      ['cut', '1.1'],
      ['cut', '2.1 3.1'],
    ])
  })

  it('takes a press back', async () => {
    const { words, told } = await page()
    await until(words, 'Cut, board 1')
    await press('Cut, board 1')
    await until(words, 'Cut, board 2')
    await vi.waitFor(() => expect(told()).toHaveLength(1))
    await press('Undo')
    await until(words, 'Cut, board 1')
    await vi.waitFor(() => expect(told().map((one) => one.kind)).toEqual(['cut', 'undone']))
  })

  it('works by keys, but not while something is typed', async () => {
    const { words } = await page()
    await until(words, 'Cut, board 1')
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key: ' ', bubbles: true }))
    await until(words, 'Cut, board 2')
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'Backspace', bubbles: true }))
    await until(words, 'Cut, board 1')
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }))
    await until(words, 'Cut, board 4')
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowLeft', bubbles: true }))
    await until(words, 'Cut, board 1')
    const field = document.body.appendChild(document.createElement('input'))
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }))
    await flushPromises()
    expect(words()).toContain('Cut, board 1')
  })

  it('keeps presses without a connection, and does not end before they are sent', async () => {
    const { words, told, connect } = await page()
    await until(words, 'Cut, board 1')
    connect(false)
    await press('Cut, board 1')
    await until(words, 'Cut, board 2')
    await press('The whole set-up is cut')
    await until(words, 'Cut, board 4')
    await press('Cut, board 4')
    await until(words, 'All cut')
    await press('Put away')
    await until(words, 'not sent yet')
    connect(true)
    window.dispatchEvent(new Event('online'))
    await vi.waitFor(() => expect(new Set(told().map((one) => one.id)).size).toBe(3))
    await press('Put away')
    await until(words, 'It is put away')
  })

  it('tells a miscut of the cut that is next, and what is typed twice stands there again', async () => {
    const { words, told } = await page()
    await until(words, 'Cut, board 1')
    await press('Miscut')
    await until(words, 'What went wrong?')
    await vi.waitFor(() =>
      expect(document.querySelector('[data-takes="length"] input')).toBeTruthy(),
    )
    const field = document.querySelector<HTMLInputElement>('.v-dialog [data-takes="length"] input')!
    field.value = '19 1/2'
    field.dispatchEvent(new Event('input'))
    await flushPromises()
    await press('Plan around it')
    await vi.waitFor(() => expect(told()).toHaveLength(1))
    expect(told()[0]).toMatchObject({ kind: 'miscut', cuts: '1.1', now: '19 1/2' })
  })

  it('says why it cannot be opened', async () => {
    serverThat('no connection')
    const it = shown(ShopPage)
    await vi.waitFor(() => expect(it.text()).toContain('there is no connection'))
    expect(it.text()).toContain('Open this page once with a connection')
  })
})
