import { flushPromises } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import type { Effect, Outcome } from '../api'
import { press } from '../testing/press'
import { sectionOf } from '../testing/projects'
import { shown } from '../testing/shown'
import EffectOfSize from './EffectOfSize.vue'

const effect: Effect = {
  project: 'Boardwalk',
  mark: 'A',
  called: 'rail',
  pieces: 4,
  before: sectionOf(2, 4),
  after: sectionOf(2, 3),
  why: '',
}
const done = <T>(data: T): Promise<Outcome<T>> => Promise.resolve({ kind: 'done', data })

function asking(effects: Promise<Outcome<Effect[]>>) {
  const save = vi.fn(() => done('saved'))
  const dialog = shown(EffectOfSize)
  const { apply } = dialog.vm as unknown as {
    apply: (asked: typeof effects, save: () => Promise<unknown>) => Promise<Outcome<string>>
  }
  const outcome = apply(effects, save)
  return { save, outcome, text: () => document.body.textContent }
}

describe('a size that is corrected', () => {
  it('is saved at once where no part has it', async () => {
    const { save, outcome, text } = asking(done([]))
    expect((await outcome).kind).toBe('done')
    expect(save).toHaveBeenCalledTimes(1)
    expect(text()).not.toContain('Apply')
  })

  it('lists the parts that change before it is saved', async () => {
    const { save, text } = asking(done([effect]))
    await flushPromises()
    expect(text()).toContain('One part changes')
    expect(text()).toContain('Boardwalk')
    expect(text()).toContain('A rail')
    expect(save).not.toHaveBeenCalled()
  })

  it('counts them', async () => {
    const { text } = asking(done([effect, { ...effect, mark: 'B', why: 'too thin for it' }]))
    await flushPromises()
    expect(text()).toContain('2 parts change')
    expect(text()).toContain('too thin for it')
  })

  it('is saved when it is to be applied', async () => {
    const { save, outcome } = asking(done([effect]))
    await flushPromises()
    await press('Apply the size')
    expect((await outcome).kind).toBe('done')
    expect(save).toHaveBeenCalledTimes(1)
  })

  it('stays in its field, with what can be done, when it is to be left', async () => {
    const { save, outcome } = asking(done([effect]))
    await flushPromises()
    await press('Leave it')
    expect(await outcome).toMatchObject({ kind: 'refused' })
    expect(save).not.toHaveBeenCalled()
  })

  it('goes to be saved, and refused there, where the effect could not be asked', async () => {
    const refused = { kind: 'refused' as const, detail: 'no length', problems: [] }
    const { save, outcome } = asking(Promise.resolve(refused))
    await outcome
    expect(save).toHaveBeenCalledTimes(1)
  })
})
