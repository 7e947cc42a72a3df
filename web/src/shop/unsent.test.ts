import { describe, expect, it } from 'vitest'
import type { BenchEvent, Cutting } from '../api'
import { benchNow } from './unsent'
import { NOTHING_SAID } from './useCutting'

let count = 0

function eventOf(more: Partial<BenchEvent>): BenchEvent {
  count += 1
  return { ...NOTHING_SAID, id: `event ${count}`, kind: 'cut', ...more }
}

function cuttingOf(more: Partial<Cutting> = {}): Cutting {
  return { done: [], last: null, ...more } as Cutting
}

describe('what waits to be sent', () => {
  it('counts cuts as done', () => {
    const now = benchNow(cuttingOf({ done: ['1.1'] }), [eventOf({ cuts: '1.2 2.1' })])
    expect([...now.done]).toEqual(['1.1', '1.2', '2.1'])
  })

  it('is not counted where it is undone', () => {
    const cut = eventOf({ cuts: '1.2' })
    const now = benchNow(cuttingOf(), [cut, eventOf({ kind: 'undone', undoes: cut.id })])
    expect(now.done.size).toBe(0)
    expect(now.last).toBe('')
  })

  it('takes back what the server knows as the last', () => {
    const cutting = cuttingOf({
      done: ['1.1', '1.2'],
      last: { id: 'known', said: '1 cut', cuts: ['1.2'] },
    })
    expect(benchNow(cutting, []).last).toBe('known')
    const now = benchNow(cutting, [eventOf({ kind: 'undone', undoes: 'known' })])
    expect([...now.done]).toEqual(['1.1'])
  })

  it('makes boards wait on which something went wrong, and no others', () => {
    const miscut = eventOf({ kind: 'miscut', cuts: '3.2', now: '12' })
    const lost = eventOf({ kind: 'lost', board: 5 })
    const now = benchNow(cuttingOf(), [miscut, lost])
    expect([...now.waiting]).toEqual([3, 5])
    expect(now.last).toBe(lost.id)
  })
})
