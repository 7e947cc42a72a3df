import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { laidOf, measureOf, runOf } from '../testing/measures'
import { inches, projectOf } from '../testing/projects'
import { serverThat, type Asked } from '../testing/server'
import { shown } from '../testing/shown'
import MeasuresLeaf from './MeasuresLeaf.vue'

const post = measureOf({ name: 'post', formula: 'width of A' })
const rail = measureOf({
  name: 'rail',
  formula: 'opening - 2 * post',
  measured: '64 7/8',
  measured_on: '2026-05-31',
  value: { kind: 'length', text: '64 7/8', length: inches(64), exact: false },
  computed: { kind: 'length', text: '65', length: inches(65), exact: true },
  specimens: [
    { text: '23 1/8', fits: true },
    { text: '23 3/16', fits: false },
  ],
  used_by: ['length of B'],
})

function leaf(said: object = {}, run = '') {
  const project = projectOf({ measures: [post, rail], runs: [runOf({ name: 'pickets' })], ...said })
  const change = vi.fn(async (ask: (seen: object) => Promise<unknown>) => {
    const answer = (await ask({ version: 3, change_id: 'c' })) as {
      data: unknown
      response: Response
    }
    if (answer.response.ok) return { kind: 'done', data: answer.data }
    const { error } = answer as unknown as { error: { detail: string; problems: [] } }
    return { kind: 'refused', ...error }
  })
  const wrapper = shown(MeasuresLeaf, { project, desk: { change }, run })
  return { wrapper, text: () => wrapper.text() }
}

beforeEach(() => {
  localStorage.clear()
  vi.useFakeTimers()
})
afterEach(() => void vi.useRealTimers())

describe('the measures', () => {
  it('have their formula, what holds, and what was measured', () => {
    const { wrapper, text } = leaf()
    expect(text()).toContain('opening - 2 * post')
    expect(text()).toContain('measured 64 7/8')
    expect(wrapper.findAll('.value').map((one) => one.text())).toEqual(['72', '≈64″'])
  })

  it('tell what they would be, which specimen does not fit, and where they are used', async () => {
    const { wrapper, text } = leaf()
    await wrapper.get('[aria-label="details of rail"]').trigger('click')
    expect(text()).toContain('Worked out it would be 65″.')
    expect(text()).toContain('May 31, 2026')
    expect(text()).toContain('23 3/16 (would not fit)')
    expect(text()).toContain('Used in length of B.')
  })

  it('say what is wrong with them', () => {
    const wrong = measureOf({ name: 'a', value: null, problems: ['goes round in a circle: a → a'] })
    const { text } = leaf({ measures: [wrong] })
    expect(text()).toContain('goes round in a circle: a → a')
    expect(text()).toContain('?')
  })

  it('are told in words where there are none', () => {
    expect(leaf({ measures: [] }).text()).toContain('No measures yet.')
  })

  it('stay where they are used, with the reason', async () => {
    const detail = 'rail is used in length of B: change that first'
    const asked = serverThat({ status: 422, data: { detail, problems: [] } })
    const { wrapper, text } = leaf()
    await wrapper.get('[aria-label="details of rail"]').trigger('click')
    const remove = wrapper.findAll('button').find((one) => one.text() === 'Remove rail')
    await remove?.trigger('click')
    await flushPromises()
    expect(asked[0]?.body.parts).toEqual(['rail'])
    expect(text()).toContain(detail)
  })
})

describe('the line in which a measure is typed', () => {
  async function type(line: string, answer: object) {
    const asked = serverThat({ data: answer })
    const found = leaf()
    await found.wrapper.get('[aria-label="New measure"]').setValue(line)
    await vi.advanceTimersByTimeAsync(200)
    await flushPromises()
    return { ...found, asked }
  }

  it('says what it would come to', async () => {
    const value = { kind: 'number', text: '37 1/2', length: null, exact: true }
    const line = 'lid = depth + 1 1/2'
    const { text, asked } = await type(line, { name: 'lid', formula: '', value, problems: [] })
    expect(asked[0]?.body).toEqual({ line })
    expect(text()).toContain('lid = 37 1/2, named for use in any length')
  })

  it('says why it comes to nothing', async () => {
    const problems = [{ place: '', message: '“dept” is not known. Nearest known: depth' }]
    const { text } = await type('lid = dept', { name: 'lid', formula: '', value: null, problems })
    expect(text()).toContain('Nearest known: depth')
  })

  it('asks nothing before there is a whole line, and keeps it through a reload', async () => {
    const { asked } = await type('lid', {})
    expect(asked).toEqual([])
    const again = leaf().wrapper.get('[aria-label="New measure"]').element as HTMLInputElement
    expect(again.value).toBe('lid')
  })
})

describe('a run', () => {
  it('says how it lies, and what other numbers would leave', () => {
    const laid = laidOf({ neighbours: [{ count: 4, gap: inches(4) }], exact_gap: '6.75' })
    const { text } = leaf({ runs: [runOf({ name: 'pickets', laid })] }, 'pickets')
    expect(text()).toContain('3, gap 7″')
    expect(text()).toContain('Exactly 6.75.')
    expect(text()).toContain('4 would leave 4″')
  })

  it('tells the last row of siding, and asks what siding asks for', () => {
    const laid = laidOf({ gap: null, rows: 9, last: inches(5), exposure: inches(6) })
    const run = runOf({ name: 'wall', way: 'lap', laid })
    const { text, wrapper } = leaf({ runs: [run] }, 'wall')
    expect(text()).toContain('The last is ripped to 5″')
    expect(wrapper.find('[aria-label="Least width of wall"]').exists()).toBe(true)
    expect(wrapper.find('[aria-label="Packers of wall"]').exists()).toBe(false)
  })

  it('keeps what cannot be laid, with the fault at its field', () => {
    const problems = [{ place: 'figure', message: 'a gap is not below 0' }]
    const run = runOf({ name: 'pickets', laid: null, problems })
    expect(leaf({ runs: [run] }, 'pickets').text()).toContain('a gap is not below 0')
    expect(leaf({ runs: [run] }).text()).toContain('figure a gap is not below 0')
  })

  it('writes its part from a line, and keeps the line that is refused', async () => {
    const refusal = (asked: Asked) => ({
      status: 422,
      data: {
        detail: String(asked.body.line),
        problems: [{ place: 'stock', message: 'no stock' }],
      },
    })
    const asked = serverThat(refusal)
    const { wrapper, text } = leaf({}, 'pickets')
    const line = wrapper.get('.write input')
    await line.setValue('picket 1x9 42')
    await wrapper.get('.write').trigger('submit')
    await flushPromises()
    expect(asked[0]?.path).toContain('/runs/pickets/part')
    expect(text()).toContain('no stock')
    expect((line.element as HTMLInputElement).value).toBe('picket 1x9 42')
  })
})
