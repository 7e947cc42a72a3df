import { describe, expect, it } from 'vitest'
import type { Card } from '../api'
import { inches } from '../testing/projects'
import { cardOf, cutOf } from '../testing/shop'
import { shown } from '../testing/shown'
import CrosscutDrawing from './CrosscutDrawing.vue'
import { shapeOf } from './crosscutShape'
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
    const free = cardOf([1], { at: null, do: 'line' })
    free.rows[0]!.cuts = [cutOf({ to_line: true })]
    expect(card(now(free))).toContain('Line')
    expect(card(now(free))).toContain('line at 20″ from the marked end, saw beyond it')
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
    const trim = drawn(
      {},
      cutOf({ to_line: true, waste: 'before', keeps_near: false, keeps_far: true }),
    )
    expect(trim.get('[role="img"]').attributes('aria-label')).toContain('No stop')
  })

  it('says what touches the stop, and shows a bevel from the front too', () => {
    const blade = [162560, 162560, 170000, 170000]
    const bevel = drawn({}, cutOf({ touches: 'long edge up', blade }))
    expect(bevel.text()).toContain('long edge up touches')
    expect(bevel.text()).toContain('from the front')
    expect(drawn({}).text()).not.toContain('from the front')
  })

  it('is to one scale, the middle broken away', () => {
    const cut = cutOf({ blade: [162560, 134112, 134112, 162560] }) // 45° over its own width
    const shape = shapeOf(cut)
    const [at, front] = [shape.x(162560), shape.x(134112)]
    expect(at - front).toBeCloseTo(shape.wide * shape.scale)
    expect(shape.gap).not.toBeNull()
    expect(shapeOf(cutOf({ blade: Array<number>(4).fill(30000) })).gap).toBeNull()
  })
})

describe('what is sawn of a part', () => {
  it('shows its line and its waste in place of a crosscut', () => {
    const line = [
      [0, 0],
      [8128, 28448],
    ]
    const shape = { line, waste: [...line, [0, 28448]], is_outline: false, is_over: false }
    const of = cardOf([1], { at: null })
    of.rows[0]!.cuts = [cutOf({ shape, to_line: true, line: 'line from the corner' })]
    const drawn = shown(SetUpCard, { card: now(of), row: now(of).rows[0] })
    expect(drawn.findAll('polyline')).toHaveLength(1)
    expect(drawn.text()).toContain('line from the corner, saw on the waste side of it')
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
