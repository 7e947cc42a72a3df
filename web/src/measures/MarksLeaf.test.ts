import { beforeEach, describe, expect, it, vi } from 'vitest'
import { laidOf, runOf } from '../testing/measures'
import { inches, projectOf } from '../testing/projects'
import { shown } from '../testing/shown'
import MarksDrawing from './MarksDrawing.vue'
import MarksLeaf from './MarksLeaf.vue'

function leaf(...runs: ReturnType<typeof runOf>[]) {
  const change = vi.fn(async () => ({ kind: 'done', data: {} }))
  return shown(MarksLeaf, { project: projectOf({ runs }), desk: { change }, run: '' })
}

beforeEach(() => localStorage.clear())

describe('the marks of a run', () => {
  it('are read from the left, or from the right', async () => {
    const wrapper = leaf(runOf({ name: 'pickets', part: 'C' }))
    const figures = () => wrapper.findAll('.list .figure').map((one) => one.text())
    expect(figures()).toEqual(['2″', '12″', '22″'])
    const right = wrapper.findAll('button').find((one) => one.text() === 'from the right')
    await right?.trigger('click')
    expect(figures()).toEqual(['28″', '18″', '8″'])
    expect(wrapper.text()).toContain('from the right end')
    expect(wrapper.get('.list').text()).toContain('C1')
  })

  it('say what is left out, loose, packed and checked', () => {
    const laid = laidOf({ packers: ['6 + 1 = 7', '7'] })
    Object.assign(laid.marks[0]!, { check: inches(5) })
    Object.assign(laid.marks[1]!, { left_out: true })
    Object.assign(laid.marks[2]!, { loose: true })
    const text = leaf(runOf({ name: 'pickets', laid })).text()
    expect(text).toContain('then 6 + 1 = 7')
    expect(text).toContain('check: ends at 5″')
    expect(text).toContain('left out')
    expect(text).toContain('loose: fixed on the site')
  })

  it('are told why there are none', () => {
    expect(leaf().text()).toContain('No run yet.')
    const problems = [{ place: 'item', message: 'not one of them fits' }]
    const wrapper = leaf(runOf({ name: 'pickets', laid: null, problems }))
    expect(wrapper.get('[role=alert]').text()).toContain('item not one of them fits')
  })
})

describe('the drawing of a run', () => {
  it('is to scale, each item where it lies', () => {
    const wrapper = shown(MarksDrawing, { laid: laidOf(), letter: 'C', kind: 'plain', end: 'left' })
    const items = wrapper.findAll('rect.item').map((one) => Number(one.attributes('x')))
    const [first = 0, second = 0, third = 0] = items
    const rail = wrapper.get('rect.rail')
    const scale = Number(rail.attributes('width')) / 30
    expect(second - first).toBeCloseTo(10 * scale)
    expect(third - Number(rail.attributes('x'))).toBeCloseTo(22 * scale)
    expect(Number(wrapper.get('rect.item').attributes('width'))).toBeCloseTo(3 * scale)
  })

  it('has a figure without its unit at each mark, none upon another', () => {
    const wrapper = shown(MarksDrawing, { laid: laidOf(), letter: '', kind: 'plain', end: 'left' })
    const written = wrapper.findAll('g:not(.whole) text.figure').map((one) => one.text())
    expect(written).toEqual(['2', '12', '22'])
    const marks = laidOf().marks
    const close = marks.map((mark, n) => ({ ...mark, start: marks[0]!.start + n * 2000 }))
    const tight = laidOf({ marks: close })
    const crowded = shown(MarksDrawing, { laid: tight, letter: '', kind: 'plain', end: 'left' })
    expect(crowded.findAll('g:not(.whole) text.figure').length).toBeLessThan(3)
  })
})
