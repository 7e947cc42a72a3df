import { flushPromises } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { VSelect } from 'vuetify/components'
import type { PricesReading, Reading } from '../api'
import type { ProjectOnDesk } from '../project'
import { press } from '../testing/press'
import { inches, partOf, projectOf, sectionOf } from '../testing/projects'
import { serverThat } from '../testing/server'
import { shown } from '../testing/shown'
import PartsImport from './PartsImport.vue'
import PricesImport from './PricesImport.vue'

const words = () => document.body.textContent.replace(/\s+/g, ' ')
const ODD = [{ heading: 'cut to', name: '', sample: '40' }]
const PART: Reading['parts'][number] = {
  ...{ name: 'rail', quantity: 2, stock: '2x4', length: inches(40), section: sectionOf(2, 4) },
  ...{ group: '', kind: 'plain', later: '', note: '', warnings: ['an unknown word: oak'] },
}

function readingOf(said: Partial<Reading> = {}): Reading {
  return { choices: ['stock', 'length'], columns: [], parts: [PART], problems: [], ...said }
}

async function pick(name: string) {
  const field = document.querySelector<HTMLInputElement>('input[type="file"]')!
  Object.defineProperty(field, 'files', { value: [new File(['stock,length'], name)] })
  field.dispatchEvent(new Event('change'))
  await flushPromises()
}

describe('a part list from a file', () => {
  function dialog(parts = 0, outcome: object = { kind: 'done', data: {} }) {
    const change = vi.fn(() => Promise.resolve(outcome))
    const project = projectOf({
      parts: Array.from({ length: parts }, (_, n) => partOf({ id: `p${n}` })),
    })
    const desk = { change } as unknown as ProjectOnDesk
    return { it: shown(PartsImport, { modelValue: true, project, desk }), change }
  }

  it('shows what was understood before anything is taken', async () => {
    serverThat({ data: readingOf() })
    const { it: found, change } = dialog()
    await flushPromises()
    await pick('parts.csv')
    await vi.waitFor(() => expect(words()).toContain('an unknown word: oak'))
    expect(words()).toMatch(/2 × 4″?/)
    expect(change).not.toHaveBeenCalled()
    await press('Add 1 part')
    expect(change).toHaveBeenCalledTimes(1)
    expect(found.emitted('update:modelValue')?.at(-1)).toEqual([false])
  })

  it('names every fault by its place, and imports nothing', async () => {
    const problems = [{ place: 'line 3, length', message: 'a length is missing' }]
    serverThat({ data: readingOf({ parts: [], problems }) })
    dialog()
    await flushPromises()
    await pick('broken.csv')
    await vi.waitFor(() => expect(words()).toContain('a length is missing'))
    expect(words()).toContain('Nothing is imported: 1 thing to mend.')
    const add = [...document.querySelectorAll('button')].find((one) =>
      one.textContent.includes('Add 0 parts'),
    )
    expect(add?.disabled).toBe(true)
  })

  it('asks what a column is, and reads the file again', async () => {
    const asked = serverThat({ data: readingOf({ columns: ODD }) })
    const { it: found } = dialog()
    await flushPromises()
    await pick('odd.csv')
    await vi.waitFor(() => expect(words()).toContain('What each column is'))
    const select = found.findAllComponents(VSelect).find((one) => one.isVisible())!
    select.vm.$emit('update:modelValue', 'length')
    await flushPromises()
    expect(asked.filter((one) => one.path.endsWith('/parts-file'))).toHaveLength(2)
  })

  it('may come in the place of the parts that are there', async () => {
    serverThat({ data: readingOf() })
    dialog(3)
    await flushPromises()
    await pick('parts.csv')
    await vi.waitFor(() => expect(words()).toContain('Instead of the 3 parts there now'))
    document.querySelector<HTMLInputElement>('input[type="checkbox"]')!.click()
    await flushPromises()
    expect(words()).toContain('Take 1 part')
  })
})

describe('prices from a file', () => {
  const reading = {
    ...{ problems: [], columns: [], choices: [] },
    yards: [
      {
        ...{ yard: 'Bell Yard', known: true, same: 4, gone: ['1x4 8 ft'], changed: ['2x4 8 ft'] },
        new: ['2x6 8 ft', '2x6 10 ft', '2x6 12 ft', '2x8 8 ft', '2x8 10 ft'],
      },
    ],
  } as unknown as PricesReading

  it('say yard by yard what would change, then are taken', async () => {
    const asked = serverThat({ data: reading }, { data: [] })
    shown(PricesImport, { modelValue: true, yard: 'Bell Yard' })
    await flushPromises()
    await pick('prices.csv')
    await vi.waitFor(() => expect(words()).toContain('5 new'))
    expect(words()).toContain('2x8 8 ft and 1 more')
    expect(words()).toContain('1 vanish 1x4 8 ft')
    await press('Take these prices')
    await vi.waitFor(() => expect(asked.at(-1)?.path).toBe('/api/yards/import-prices'))
  })

  it('of a whole yard are not read as a table', async () => {
    const asked = serverThat({ data: {} })
    shown(PricesImport, { modelValue: true })
    await flushPromises()
    await pick('bell.yard.json')
    await vi.waitFor(() => expect(words()).toContain('A yard file'))
    expect(asked).toHaveLength(0)
    await press('Take these prices')
    await vi.waitFor(() => expect(asked.at(-1)?.path).toBe('/api/yards/import'))
  })
})
