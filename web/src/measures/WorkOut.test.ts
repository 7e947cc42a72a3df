import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { inches } from '../testing/projects'
import { serverThat } from '../testing/server'
import { shown } from '../testing/shown'
import WorkOut from './WorkOut.vue'

async function asked(answer: object) {
  const requests = serverThat({ data: answer })
  const take = vi.fn(async () => ({ kind: 'done', data: {} }))
  shown(WorkOut, { project: { id: 'p' }, called: 'rail', take, modelValue: true })
  await vi.advanceTimersByTimeAsync(200)
  const inputs = document.querySelectorAll<HTMLInputElement>('.asked .v-text-field input')
  const board = inputs[inputs.length - 1]!
  board.value = '8 ft'
  board.dispatchEvent(new Event('input'))
  await vi.advanceTimersByTimeAsync(200)
  await flushPromises()
  return { requests, take }
}

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

describe('a common question', () => {
  it('is answered by a formula that goes into the length', async () => {
    const value = { kind: 'length', text: '47 15/16', length: inches(47), exact: true }
    const answer = {
      name: '',
      formula: '(8 ft - first trim - last trim - kerf) / 2',
      value,
      problems: [],
    }
    const { requests, take } = await asked(answer)
    expect(requests.at(-1)?.body).toEqual({ question: 'half', given: { board: '8 ft' } })
    expect(document.body.textContent).toContain(
      '= (8 ft - first trim - last trim - kerf) / 2 is 47″',
    )
    document.querySelector('form')?.dispatchEvent(new Event('submit'))
    await flushPromises()
    expect(take).toHaveBeenCalledWith('=(8 ft - first trim - last trim - kerf) / 2')
  })

  it('takes nothing that is not worked out, and says why', async () => {
    const problems = [{ place: '', message: '“bord” is not known' }]
    const { take } = await asked({ name: '', formula: '', value: null, problems })
    document.querySelector('form')?.dispatchEvent(new Event('submit'))
    await flushPromises()
    expect(take).not.toHaveBeenCalled()
    expect(document.querySelector('.text-error')?.textContent).toContain('“bord” is not known')
  })
})
