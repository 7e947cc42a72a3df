import { flushPromises } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import type { DayStep, Days } from '../api'
import type { ProjectOnDesk } from '../project'
import { daysOf, step } from '../testing/days'
import { press } from '../testing/press'
import { projectOf } from '../testing/projects'
import { shown } from '../testing/shown'
import DaysList from './DaysList.vue'
import StepCard from './StepCard.vue'
import type { ProjectDays } from './useDays'
import WouldDo from './WouldDo.vue'

function held(says = true) {
  const tell = vi.fn(() => Promise.resolve(says))
  const say = vi.fn(() => Promise.resolve({ kind: 'done', data: {} }))
  const undo = vi.fn()
  const quiet = { refused: ref(''), busy: ref(false) }
  return { tell, say, undo, days: { tell, say, undo, ...quiet } as unknown as ProjectDays }
}

function card(said: Partial<DayStep> = {}, says = true) {
  const { days, ...told } = held(says)
  const it = shown(StepCard, { step: step('glue', said), held: days, project: projectOf() })
  return { it, ...told, words: () => it.text().replace(/\s+/g, ' ') }
}

describe('a step', () => {
  it('says when it is, what it waits for and why', () => {
    const { words } = card()
    expect(words()).toMatch(/Mon 7, 6 pm, 30 min, then waits 10 h until Tue 8, 4:30 am/)
    expect(words()).toContain('(dries 10 h, the label)')
    expect(card({ wait: '', wait_says: '' }).words()).not.toContain('then waits')
  })

  it('is begun, done and taken back', async () => {
    const later = card({ state: 'next' })
    await press('Done')
    expect(later.tell).toHaveBeenCalledWith('done', 'glue', { at: '' })
    later.it.unmount()
    const done = card({ state: 'done', last: 'event' })
    await press('Take back')
    expect(done.undo).toHaveBeenCalledTimes(1)
  })

  it('of a batch counts one more, and is done with the last', async () => {
    const some = card({ state: 'next', batch: 20, made: 7 })
    expect(some.words()).toContain('7 of 20 are done')
    await press('One more of 20')
    expect(some.tell).toHaveBeenCalledWith('made', 'glue', { at: '', answer: '8' })
    some.it.unmount()
    const last = card({ state: 'next', batch: 20, made: 19 })
    await press('One more of 20')
    expect(last.tell).toHaveBeenCalledWith('done', 'glue', { at: '' })
  })

  it('is checked by a figure or by a yes, and says what a wrong one means', async () => {
    const check = { asks: 'Diagonals differ by', told: 'equal to 1/16', answer: '', good: true }
    const figure = card({ check: { ...check, is_figure: true, says: 'rack it square' } })
    expect(figure.words()).toContain('Check: equal to 1/16')
    expect(figure.words()).toContain('rack it square')
    await figure.it.get('.answer input').setValue('1/8')
    await figure.it.get('.answer').trigger('submit')
    expect(figure.tell).toHaveBeenCalledWith('checked', 'glue', { answer: '1/8' })
    figure.it.unmount()
    const plain = card({ check: { ...check, is_figure: false, says: '' } })
    await press('No')
    expect(plain.tell).toHaveBeenCalledWith('checked', 'glue', { answer: 'no' })
  })

  it('is changed by its own line', async () => {
    const { say, it: found } = card()
    await press('Change this step')
    const line = found.get<HTMLTextAreaElement>('form.line textarea')
    expect(line.element.value).toBe('glue, 30 min')
    await line.setValue('glue, 45 min')
    await press('Save')
    expect(say.mock.calls[0]?.[1 as never]).toBe('glue, 45 min')
  })
})

describe('the steps as a list', () => {
  const days: Days = daysOf([
    step('cut', { state: 'done' }),
    step('glue', { state: 'next', slack: '2 h to spare' }),
    step('oil', { slack: '1 day to spare', again: 'A changed since' }),
  ])

  it('opens what is pressed, one at a time', async () => {
    const it = shown(DaysList, {
      ...{ days, held: held().days, project: projectOf() },
      modelValue: '',
    })
    const words = it.text().replace(/\s+/g, ' ')
    expect(words).toContain('done, 30 min')
    expect(words).toContain('A changed since')
    const rows = it.findAll('button.row')
    expect(rows.map((one) => one.attributes('aria-expanded'))).toEqual(['false', 'false', 'false'])
    await rows[1]!.trigger('click')
    expect(it.emitted('update:modelValue')).toEqual([['glue']])
  })
})

describe('what would make it ready sooner', () => {
  it('can be taken where it can be typed', async () => {
    const would_do: Days['would_do'] = [
      { says: 'one more evening', ready: 'Jun 9', in_time: true, typed: { windows: 'wed 18-21' } },
      { says: 'a helper', ready: 'Jun 10', in_time: false, typed: {} },
    ]
    const changeSettings = vi.fn().mockResolvedValue({ kind: 'done' })
    const it = shown(WouldDo, {
      days: daysOf([], { would_do }),
      desk: { changeSettings } as unknown as ProjectOnDesk,
    })
    expect(it.text()).toContain('ready Jun 9, in time')
    expect(it.text()).toContain('ready Jun 10, still late')
    expect(it.findAll('button')).toHaveLength(1)
    await press('Take it')
    await flushPromises()
    expect(changeSettings).toHaveBeenCalledWith({ windows: 'wed 18-21' })
  })
})
