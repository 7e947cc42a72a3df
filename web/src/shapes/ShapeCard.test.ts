import { flushPromises } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import type { Shape } from '../api'
import { partOf, projectOf } from '../testing/projects'
import { shown } from '../testing/shown'
import ShapeCard from './ShapeCard.vue'

const GATE: Shape = {
  ...{ id: 'gate', called: 'gate', shape: 'frame', heading: 'Frame', writes: ['A', 'B'] },
  ...{ work: [], left_out: [], problems: [], notices: [] },
  measures: { width: 'opening - 1', height: '58 in', stock: '2x4' },
  values: {
    width: { kind: 'length', text: '71', length: null, exact: true },
    height: { kind: 'number', text: '58', length: null, exact: true },
    copies: { kind: 'number', text: '3', length: null, exact: true },
  },
}

function card(said: Partial<Shape> = {}, by_hand: string[] = []) {
  const shapes = {
    addShape: vi.fn(),
    changeShape: vi.fn().mockResolvedValue({ kind: 'done' }),
    letGo: vi.fn().mockResolvedValue({ kind: 'done' }),
    followAgain: vi.fn().mockResolvedValue({ kind: 'done' }),
  }
  const parts = [partOf({ id: 'a', mark: 'A', shape: 'gate', by_hand })]
  const wrapper = shown(ShapeCard, {
    shape: { ...GATE, ...said },
    project: projectOf({ parts }),
    chosen: true,
    shapes,
  })
  return { wrapper, shapes }
}

describe('a shape', () => {
  it('says what it is, what it wrote and how many of it there are', () => {
    const { wrapper } = card()
    expect(wrapper.text()).toContain('frame · writes A B')
    expect(wrapper.text()).toContain('× 3')
  })

  it('shows what a formula comes to, and nothing beside a plain figure', () => {
    const { wrapper } = card()
    const values = wrapper.findAll('.value').map((one) => one.text())
    expect(values).toEqual(['71'])
  })

  it('changes the measure that was typed, and no other', async () => {
    const { wrapper, shapes } = card()
    const height = wrapper.find('input[aria-label="Height, outside of gate"]')
    await height.setValue('60')
    await height.trigger('keydown', { key: 'Enter' })
    await flushPromises()
    expect(shapes.changeShape.mock.calls).toEqual([['gate', { measures: { height: '60' } }]])
  })

  it('tells what cannot be built at its measure', () => {
    const problems = [{ place: 'width', message: 'leaves nothing between the posts' }]
    const { wrapper } = card({ problems })
    const field = wrapper.findAll('.field').find((one) => one.text().startsWith('Width'))
    expect(field?.text()).toContain('leaves nothing between the posts')
  })

  it('says what was typed by hand or taken away, and lets all follow again', async () => {
    const { wrapper, shapes } = card({ left_out: ['part: middle'] }, ['length'])
    expect(wrapper.text()).toContain('Typed by hand, and kept: A length')
    expect(wrapper.text()).toContain('Taken away, and left out: part: middle')
    const again = wrapper.findAll('button').find((one) => one.text() === 'All follows again')
    await again?.trigger('click')
    expect(shapes.followAgain).toHaveBeenCalledWith('gate')
  })

  it('offers nothing to follow where all follows', () => {
    const { wrapper } = card()
    expect(wrapper.text()).not.toContain('All follows again')
  })

  it('tells why it was not let go', async () => {
    const { wrapper, shapes } = card()
    shapes.letGo.mockResolvedValue({ kind: 'refused', detail: 'changed meanwhile', problems: [] })
    const go = wrapper.findAll('button').find((one) => one.text() === 'Let it go')
    await go?.trigger('click')
    await flushPromises()
    expect(wrapper.find('[role="alert"]').text()).toBe('changed meanwhile')
  })
})
