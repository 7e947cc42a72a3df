import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Outcome } from '../api'
import { shown } from '../testing/shown'
import JointsLeaf from './JointsLeaf.vue'

const project = {
  id: 'p',
  version: 1,
  joints: '8 B to A, 2 screws',
  hardware: '',
  work: '',
  finishes: '',
  rules: '',
  usual_rules: ['into a face: 2/3'],
}

function leaf(problems: string[] = [], outcome: Outcome<unknown> = { kind: 'done', data: {} }) {
  const changeSettings = vi.fn(async () => outcome)
  const plan = { shopping: { hardware: { problems } } }
  const wrapper = shown(JointsLeaf, { project, plan, desk: { changeSettings } })
  const field = (n: number) => wrapper.findAll('textarea:not([readonly]):not([aria-hidden])')[n]!
  return { wrapper, changeSettings, joints: field(0), hardware: field(2) }
}

const value = (field: { element: Element }) => (field.element as HTMLTextAreaElement).value

beforeEach(() => localStorage.clear())

describe('joints and hardware', () => {
  it('are saved as a field is left, the changed one alone', async () => {
    const { hardware, joints, changeSettings } = leaf()
    await hardware.setValue('2 strap hinge @ 6.50')
    await hardware.trigger('blur')
    await joints.trigger('blur')
    await flushPromises()
    expect(changeSettings.mock.calls).toEqual([[{ hardware: '2 strap hinge @ 6.50' }]])
  })

  it('are saved by Ctrl Enter', async () => {
    const { joints, changeSettings } = leaf()
    await joints.setValue('9 B to A, glue')
    await joints.trigger('keydown', { key: 'Enter', ctrlKey: true })
    await flushPromises()
    expect(changeSettings).toHaveBeenCalledWith({ joints: '9 B to A, glue' })
  })

  it('are kept where they could not be saved, also through a reload', async () => {
    const problems = [{ place: 'joints', message: 'too long' }]
    const { joints, wrapper } = leaf([], { kind: 'refused', detail: 'no', problems })
    await joints.setValue('9 B to A, glue')
    await joints.trigger('blur')
    await flushPromises()
    expect(wrapper.text()).toContain('too long')
    expect(value(leaf().joints)).toBe('9 B to A, glue')
  })

  it('say at their field which lines cannot be read', () => {
    const { wrapper } = leaf([
      'joints, line 2: no part is marked Q',
      'hardware, line 1: write how many',
    ])
    expect(wrapper.get('[role=alert]').text()).toContain('left out of the list and of every total')
    expect(wrapper.text()).toContain('line 2: no part is marked Q')
    expect(wrapper.text()).toContain('line 1: write how many')
  })
})
