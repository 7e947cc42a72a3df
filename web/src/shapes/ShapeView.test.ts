import { describe, expect, it } from 'vitest'
import type { DrawnView } from '../api'
import { shown } from '../testing/shown'
import ShapeView from './ShapeView.vue'

const VIEW: DrawnView = {
  ...{ name: 'front', width: 300, height: 200, ratio: '1 : 12' },
  pieces: [
    { letter: 'A', number: 1, kind: 'cedar', points: '0,0 10,0 10,90 0,90' },
    { letter: 'A', number: 2, kind: 'cedar', points: '90,0 100,0 100,90 90,90' },
    { letter: 'B', number: 1, kind: 'treated', points: '10,0 90,0 90,10 10,10' },
  ],
  lines: [[0, 110, 100, 110]],
  labels: [
    { text: 'A', x: 5, y: 50, letter: 'A' },
    { text: '31 1/4″', x: 50, y: 125, letter: '' },
    { text: '58″', x: -20, y: 50, letter: '' },
  ],
}

function view(lit = '') {
  return shown(ShapeView, { view: VIEW, called: 'gate', lit })
}

describe('a view of a shape', () => {
  it('has an outline for every piece and says how many there are', () => {
    const wrapper = view()
    expect(wrapper.findAll('polygon')).toHaveLength(3)
    expect(wrapper.find('svg').attributes('aria-label')).toBe('gate, front: 3 pieces, 1 : 12')
  })

  it('lights every piece of a part', () => {
    expect(view('A').findAll('polygon.lit')).toHaveLength(2)
  })

  it('sets fractions as fractions', () => {
    const wrapper = view()
    expect(wrapper.findAll('.fraction').map((one) => one.text())).toEqual(['1⁄4', ''])
    expect(wrapper.findAll('text.size').map((one) => one.text().replace(/\s/g, ''))).toEqual([
      '311⁄4″',
      '58″',
    ])
  })

  it('tells which part the pointer is on, and which one is pressed', async () => {
    const wrapper = view()
    await wrapper.findAll('polygon')[2]?.trigger('pointerenter')
    await wrapper.findAll('polygon')[2]?.trigger('pointerleave')
    await wrapper.findAll('polygon')[0]?.trigger('click')
    expect(wrapper.emitted('hover')).toEqual([['B'], ['']])
    expect(wrapper.emitted('choose')).toEqual([['A']])
  })
})
