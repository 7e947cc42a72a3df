import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Outcome } from '../api'
import { serverThat } from '../testing/server'
import { shown } from '../testing/shown'
import EntryLine from './EntryLine.vue'

const project = { id: 'p', unit: 'in', notation: '1/16', parts: [{ id: 'old' }] }
const length = { ticks: 0, whole: '44', numerator: 1, denominator: 2, mark: '″', text: '44 1/2″' }
const read = {
  columns: [],
  choices: [],
  problems: [],
  parts: [
    { quantity: 6, name: 'bearers', stock: '2x6', section: null, length, warnings: [], later: '' },
  ],
}

function entry(outcome: Outcome<unknown> = { kind: 'done', data: { parts: [] } }) {
  const addParts = vi.fn(async () => outcome)
  const wrapper = shown(EntryLine, { project, desk: { addParts } })
  const field = wrapper.get('textarea')
  return {
    addParts,
    wrapper,
    field,
    typed: () => (field.element as HTMLTextAreaElement).value,
    type: async (text: string) => {
      await field.setValue(text)
      await vi.advanceTimersByTimeAsync(200)
      await flushPromises()
    },
    enter: async (init: Record<string, unknown> = {}) => {
      await field.trigger('keydown', { key: 'Enter', ...init })
      await flushPromises()
    },
  }
}

beforeEach(() => {
  localStorage.clear()
  vi.useFakeTimers()
})
afterEach(() => void vi.useRealTimers())

describe('the entry line', () => {
  it('echoes what is understood', async () => {
    serverThat({ data: read })
    const { type, wrapper } = entry()
    await type('6 bearers 2x6 44 1/2')
    expect(wrapper.get('#entry-echo').text()).toContain('6 × bearers, 2x6')
    expect(wrapper.get('#entry-echo').text()).toContain('Enter adds it.')
  })

  it('says what is not', async () => {
    const problems = [{ place: 'stock', message: 'no board is called 2x13' }]
    serverThat({ data: { ...read, parts: [], problems } })
    const { type, wrapper } = entry()
    await type('6 bearers 2x13 44')
    expect(wrapper.get('[role=alert]').text()).toContain('no board is called 2x13')
  })

  it('adds at Enter, is empty then, and tells what was added', async () => {
    serverThat({ data: read })
    const parts = [{ id: 'old' }, { id: 'new' }]
    const { type, enter, addParts, typed, wrapper } = entry({ kind: 'done', data: { parts } })
    await type('6 bearers 2x6 44 1/2')
    await enter()
    expect(addParts).toHaveBeenCalledWith('6 bearers 2x6 44 1/2', '')
    expect(typed()).toBe('')
    expect(wrapper.emitted('added')).toEqual([[['new']]])
  })

  it('goes on to another line at Shift Enter', async () => {
    serverThat({ data: read })
    const { type, enter, addParts } = entry()
    await type('6 bearers 2x6 44 1/2')
    await enter({ shiftKey: true })
    expect(addParts).not.toHaveBeenCalled()
  })

  it('keeps what is refused, with the reason', async () => {
    serverThat({ data: read })
    const problems = [{ place: 'length', message: 'a length is missing' }]
    const { type, enter, typed, wrapper } = entry({ kind: 'refused', detail: 'no', problems })
    await type('6 bearers 2x6')
    await enter()
    expect(typed()).toBe('6 bearers 2x6')
    expect(wrapper.get('[role=alert]').text()).toContain('a length is missing')
  })

  it('keeps what was typed through a reload', async () => {
    serverThat({ data: read })
    const { type } = entry()
    await type('6 bearers')
    expect(entry().typed()).toBe('6 bearers')
  })
})
