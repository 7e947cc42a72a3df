import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import type { AskedYard } from '../api'
import { press } from '../testing/press'
import { serverThat } from '../testing/server'
import { shown } from '../testing/shown'
import { lineOf, yardOf } from '../testing/workshop'
import YardPage from './YardPage.vue'

beforeEach(() => {
  sessionStorage.clear()
  localStorage.clear()
})

async function page(...replies: Parameters<typeof serverThat>) {
  const asked = serverThat(...replies)
  const it = shown(YardPage)
  await flushPromises()
  return { it, asked, words: () => document.body.textContent.replace(/\s+/g, ' ') }
}

async function type(it: Awaited<ReturnType<typeof page>>['it'], label: string, text: string) {
  const cell = it.get(`[aria-label="${label}"]`)
  await cell.setValue(text)
  await cell.trigger('keydown', { key: 'Enter' })
  await flushPromises()
}

describe('the prices of a yard', () => {
  it('are shown with what counts for all of them', async () => {
    const old = lineOf({ id: 'old', stock: '2x6', is_old: true, price: '', piece_price: null })
    const { words } = await page({ data: yardOf([lineOf(), old], { old_prices: 1 }) })
    expect(words()).toContain('2 price lines, 1 older than 90 days in USD, tax 7 %')
    expect(words()).toContain('old price')
    expect(words()).toContain('no price')
    expect(words()).toContain('Nov 2, 2026')
  })

  it('change cell by cell, and stay as typed where they cannot be read', async () => {
    const refused = { detail: '', problems: [{ place: 'price', message: 'no amount of money' }] }
    const { it: told, asked } = await page(
      { data: yardOf([lineOf()]) },
      { status: 422, data: refused },
      { data: yardOf([lineOf({ price: '4.35' })], { version: 6 }) },
    )
    await type(told, 'Price of 2x4 8 ft', 'cheap')
    expect(told.text()).toContain('no amount of money')
    await type(told, 'Price of 2x4 8 ft', '4.35')
    expect(asked[2]).toMatchObject({ method: 'PUT', body: { price: '4.35' } })
    expect(told.text()).not.toContain('no amount of money')
  })

  it('are removed, and their removal undone', async () => {
    const gone = yardOf([], { version: 6, change: '2x4 8 ft removed', undo: 'the removal' })
    const { asked, words } = await page(
      { data: yardOf([lineOf()]) },
      { data: gone },
      { data: yardOf([lineOf()], { version: 7 }) },
    )
    await press('Remove')
    expect(asked[1]).toMatchObject({ body: { lines: ['line'], version: 5 } })
    expect(words()).toContain('No prices yet')
    await press('Undo')
    expect(asked[2]).toMatchObject({ body: { version: 6 } })
    expect(words()).toContain('1 price line')
  })

  it('have a history, price by price', async () => {
    const points = [
      { price: '4.10', per: 'each', date: '2026-11-02', entered: '2026-11-03T10:00:00Z' },
      { price: '', per: '', date: null, entered: '2026-10-01T10:00:00Z' },
    ]
    const { asked, words } = await page({ data: yardOf([lineOf()]) }, { data: points })
    await press('History')
    expect(asked[1]?.path).toContain('/lines/line/prices')
    expect(words()).toContain('Price history of 2x4 8 ft')
    expect(words()).toContain('no date')
  })
})

describe('a new price line', () => {
  it('stays as typed until it is taken, and leaves its date for the next', async () => {
    const refused = { detail: '', problems: [{ place: 'stock', message: 'a stock is missing' }] }
    const { it: told, asked } = await page(
      { data: yardOf([]) },
      { status: 422, data: refused },
      { data: yardOf([lineOf()], { version: 6 }) },
    )
    const fields = told.findAll<HTMLInputElement>('form.new input')
    const [stock, length, price] = fields
    const date = fields.at(-1)
    await length!.setValue('8ft')
    await price!.setValue('4.10')
    await date!.setValue('2026-11-02')
    await told.get('form.new').trigger('submit')
    await flushPromises()
    expect(told.text()).toContain('a stock is missing')
    expect(length!.element.value).toBe('8ft')
    await stock!.setValue('2x4')
    await told.get('form.new').trigger('submit')
    await flushPromises()
    expect(asked[2]?.body).toMatchObject({ stock: '2x4', length: '8ft', per: 'each' })
    expect([stock!.element.value, date!.element.value]).toEqual(['', '2026-11-02'])
  })
})

describe('what a yard says today', () => {
  const told: AskedYard = {
    ...{ as_of: 'Nov 30, 2026', same: 3, unknown: ['4x4 10 ft'] },
    changed: [
      quote('line', '2x4 8 ft', '$4.10', '$4.30', ''),
      quote('odd', '2x6 8 ft', '$6.00', '$60.00', 'ten times as much'),
    ],
    refused: [{ name: '1x6', reason: 'in another currency' }],
  } as unknown as AskedYard

  function quote(line: string, name: string, before: string, after: string, doubt: string) {
    return { line, name, before, after, doubt, price: after.slice(1), available: '' }
  }

  it('is taken line by line; what is doubtful is not taken by itself', async () => {
    const asking = yardOf([lineOf()], { price_service: 'simulated yard' })
    const { asked, words } = await page({ data: asking }, { data: told }, { data: asking })
    await press('Ask the yard')
    expect(words()).toContain('ten times as much: look twice')
    expect(words()).toContain('Not sold there: 4x4 10 ft.')
    expect(words()).toContain('1x6: in another currency')
    await press('Take 1')
    expect(asked[2]?.body).toMatchObject({
      as_of: 'Nov 30, 2026',
      quotes: [{ line: 'line', price: '4.30' }],
    })
  })

  it('changes nothing without a connection, and can be asked again', async () => {
    const asking = yardOf([lineOf()], { price_service: 'simulated yard' })
    const { words } = await page({ data: asking }, 'no connection', { data: told })
    await press('Ask the yard')
    expect(words()).toContain('No connection.')
    await press('Ask again')
    expect(words()).toContain('3 as they were')
  })
})

describe('the settings of a yard', () => {
  it('send what changed, and nothing where nothing did', async () => {
    const { asked, words } = await page(
      { data: yardOf([lineOf()]) },
      { data: yardOf([lineOf()], { version: 6, tax_rate: '8' }) },
    )
    await press('Settings')
    await press('Save')
    expect(asked).toHaveLength(1)
    await press('Settings')
    const tax = [...document.querySelectorAll<HTMLInputElement>('.v-dialog input')][2]!
    expect(tax.value).toBe('7')
    tax.value = '8'
    tax.dispatchEvent(new Event('input'))
    await flushPromises()
    await press('Cancel')
    expect(words()).toContain('What you typed is not saved.')
    await press('Save')
    expect(asked[1]).toMatchObject({ method: 'PATCH', body: { tax_rate: '8', version: 5 } })
    expect(Object.keys(asked[1]!.body).sort()).toEqual(['change_id', 'tax_rate', 'version'])
  })

  it('ask before a yard is deleted', async () => {
    const { asked, words } = await page({ data: yardOf([lineOf()]) }, { status: 204 })
    await press('Delete')
    expect(words()).toContain('Delete Bell Yard?')
    await press('Keep it')
    expect(asked).toHaveLength(1)
  })
})
