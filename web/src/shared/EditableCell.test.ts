import { flushPromises } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import type { Outcome } from '../api'
import { shown } from '../testing/shown'
import EditableCell from './EditableCell.vue'

/** A cell whose drafts are kept as a page keeps them. */
function cell(save: (text: string) => Promise<Outcome<unknown>>) {
  const draft = ref<string>()
  const wrapper = shown(EditableCell, {
    saved: '36',
    draft: undefined,
    label: 'Length of rail',
    place: 'length',
    save,
    onKeep: async (text: string) => {
      draft.value = text
      await wrapper.setProps({ draft: text })
    },
    onDrop: async () => {
      draft.value = undefined
      await wrapper.setProps({ draft: undefined })
    },
  })
  const input = wrapper.get('input')
  return {
    draft,
    wrapper,
    input,
    type: async (text: string) => {
      await input.trigger('focus')
      await input.setValue(text)
    },
    leave: async () => {
      await input.trigger('blur')
      await flushPromises()
    },
  }
}

const done = { kind: 'done', data: null } as const

describe('a cell', () => {
  it('saves what was typed when it is left', async () => {
    const save = vi.fn(async () => done)
    const { type, leave, draft } = cell(save)
    await type('40')
    expect(draft.value).toBe('40')
    await leave()
    expect(save).toHaveBeenCalledWith('40')
    expect(draft.value).toBeUndefined()
  })

  it('saves nothing where nothing was changed', async () => {
    const save = vi.fn(async () => done)
    const { type, leave, draft } = cell(save)
    await type('36')
    await leave()
    expect(save).not.toHaveBeenCalled()
    expect(draft.value).toBeUndefined()
  })

  it('keeps what cannot be read, says why, and what is used instead', async () => {
    const problems = [
      { place: 'stock', message: 'no stock' },
      { place: 'length', message: 'a length is missing' },
    ]
    const { type, leave, draft, wrapper, input } = cell(async () => ({
      kind: 'refused',
      detail: 'no',
      problems,
    }))
    await type('long')
    await leave()
    expect(draft.value).toBe('long')
    expect(wrapper.get('[role=alert]').text()).toBe('a length is missing')
    expect(input.attributes('aria-invalid')).toBe('true')
    expect(input.attributes('aria-describedby')).toBe(wrapper.get('[role=alert]').attributes('id'))
  })

  it('takes the old value back at Escape', async () => {
    const { type, input, draft } = cell(async () => done)
    await type('99')
    await input.trigger('keydown', { key: 'Escape' })
    await flushPromises()
    expect(draft.value).toBeUndefined()
    expect((input.element as HTMLInputElement).value).toBe('36')
  })

  it('says when it was changed elsewhere meanwhile', async () => {
    const { type, leave, wrapper, draft } = cell(async () => ({
      kind: 'conflict',
      detail: 'changed',
      current: {},
    }))
    await type('40')
    await leave()
    expect(wrapper.text()).toContain('changed elsewhere meanwhile')
    expect(draft.value).toBe('40')
  })

  it('saves once, however often it is left while it is being saved', async () => {
    let answer: (outcome: Outcome<unknown>) => void = () => undefined
    const save = vi.fn(() => new Promise<Outcome<unknown>>((resolve) => (answer = resolve)))
    const { type, leave } = cell(save)
    await type('40')
    await leave()
    await leave()
    expect(save).toHaveBeenCalledTimes(1)
    answer(done)
    await flushPromises()
  })

  it('saves again what was typed while it was being saved', async () => {
    const answers: ((outcome: Outcome<unknown>) => void)[] = []
    const texts: string[] = []
    const save = (text: string) => {
      texts.push(text)
      return new Promise<Outcome<unknown>>((resolve) => answers.push(resolve))
    }
    const { type, leave, draft } = cell(save)
    await type('40')
    await leave()
    await type('41')
    await leave()
    answers[0]?.(done)
    await flushPromises()
    expect(texts).toEqual(['40', '41'])
    answers[1]?.(done)
    await flushPromises()
    expect(draft.value).toBeUndefined()
  })
})
