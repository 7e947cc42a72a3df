import { describe, expect, it } from 'vitest'
import type { Card } from '../api'
import { inches } from '../testing/projects'
import { cardOf, cutOf } from '../testing/shop'
import { shown } from '../testing/shown'
import CrosscutDrawing from './CrosscutDrawing.vue'
import EndGrain from './EndGrain.vue'
import SetUpCard from './SetUpCard.vue'
import type { CardNow } from './useCutting'

function now(card: Card, done: string[] = []): CardNow {
  const rows = card.rows.map((row) => ({
    ...row,
    left: row.cuts.filter((cut) => !done.includes(cut.key)),
    waits: false,
  }))
  return { ...card, rows, isDone: rows.every((row) => !row.left.length) }
}

function card(of: CardNow) {
  const row = of.rows.find((one) => one.left.length)
  return shown(SetUpCard, { card: of, row }).text().replace(/\s+/g, ' ')
}

describe('a set-up', () => {
  it('says its figure first, then its boards', () => {
    const words = card(now(cardOf([1, 2])))
    expect(words).toMatch(/^Stop at\s*20″\s*square, miter saw/)
    expect(words).toContain('From these boards')
  })

  it('says about where a figure is rounded', () => {
    const rough = { ...inches(20), exact: false }
    expect(card(now(cardOf([1], { at: rough })))).toContain('about')
    expect(card(now(cardOf([1])))).not.toContain('about')
  })

  it('trims without a figure, and sends every line of its own where there is no stop', () => {
    expect(card(now(cardOf([1], { at: null, do: 'trim' })))).toContain('Trim')
    const free = card(now(cardOf([1], { at: null, do: 'line' })))
    expect(free).toContain('Line')
    expect(free).toContain('line at 20″, saw beyond it')
  })

  it('says how a piece lies only where that is not as always', () => {
    expect(card(now(cardOf([1])))).not.toContain('face up')
    const turned = cardOf([1])
    turned.rows[0]!.cuts = [cutOf({ is_usual: false, lies: 'turned end for end' })]
    expect(card(now(turned))).toContain('turned end for end')
  })

  it('strikes boards that are done, and shows the next of many', async () => {
    const many = now(cardOf(Array.from({ length: 12 }, (_, n) => n + 1)), [
      '1.1',
      '2.1',
      '3.1',
      '4.1',
    ])
    const it_ = shown(SetUpCard, { card: many, row: many.rows[4] })
    expect(it_.findAll('.boards li .number').map((one) => one.text())).toEqual([
      '3',
      '4',
      '5',
      '6',
      '7',
      '8',
      '9',
    ])
    expect(it_.text()).toContain('and 3 more')
    await it_.get('.more button').trigger('click')
    expect(it_.findAll('.boards li')).toHaveLength(12)
  })
})

describe('a crosscut from above', () => {
  const drawn = (said: Partial<Card>, cut = cutOf()) =>
    shown(CrosscutDrawing, { card: now(cardOf([1], said)), cut, kind: 'plain' })

  it('keeps what lies at the stop', () => {
    expect(drawn({}).get('[role="img"]').attributes('aria-label')).toContain('Stop to the left')
    const trim = drawn({}, cutOf({ waste: 'before', keeps_near: false, keeps_far: true }))
    expect(trim.get('[role="img"]').attributes('aria-label')).toContain('No stop')
  })

  it('draws the blade across the board as it is swung', () => {
    const corners = (said: Partial<Card>) =>
      drawn(said)
        .findAll('polygon')
        .map((one) => one.attributes('points'))
    expect(corners({ angle: 0 })).not.toEqual(corners({ angle: 30, swing: 'left' }))
    expect(corners({ angle: 30, swing: 'left' })).not.toEqual(
      corners({ angle: 30, swing: 'right' }),
    )
  })
})

describe('a rip, from the end of the board', () => {
  const drawn = (said: Partial<Card>, cut = cutOf({ near: 2, far: 2.125 })) =>
    shown(EndGrain, {
      card: now(cardOf([1], { is_crosscut: false, ...said })),
      cuts: [cut],
      kind: 'plain',
    })

  it('says on which side the fence stands, and how the blade leans', () => {
    const said = drawn({ tilt: 45, tilt_side: 'left' }).get('[role="img"]').attributes('aria-label')
    expect(said).toBe(
      'The board’s end on the saw: fence on the left, face up, edge at the fence, blade tilted 45° to the left',
    )
  })

  it('stands mirrored where the fence is on the right', () => {
    const at = (side: string) => {
      const points = drawn({ fence_side: side }).get('polygon').attributes('points') ?? ''
      return points.split(' ').map((one) => Number(one.split(',')[0]))
    }
    const width = Number(drawn({}).get('svg').attributes('viewBox')!.split(' ')[2])
    const mirrored = at('right').map((x) => Math.round(width - x))
    expect(at('left').map(Math.round)).toEqual(mirrored)
  })
})
