import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import type { Receipt } from '../api'
import { serverThat } from '../testing/server'
import { shown } from '../testing/shown'
import ReceiptPage from './ReceiptPage.vue'

beforeEach(() => sessionStorage.clear())

function receiptOf(said: Partial<Receipt> = {}, line = {}): Receipt {
  return {
    ...{ trip: 'trip', project: 'project', project_name: 'Boardwalk', finished: null },
    ...{ yard: 'Bell Yard', yard_id: 'bell', told: 'as planned', over: false, laid: 0, learns: 0 },
    ...{ paid: '$12.00', planned: '$20.00', tax_rate: '0', tax_included: false },
    lines: [
      {
        ...{ key: 'pine', called: '2x4 pine 8 ft', name: '2x4 pine', named_length: '8 ft' },
        ...{ content: '', length: null, section: null, planned: 5, planned_price: '$4.00' },
        ...{ planned_together: '$20.00', paid: 3, paid_price: '$4.00', paid_typed: '4.00' },
        ...{ paid_together: '$12.00', difference: null, dearer: false, not_bought: 2, ...line },
      },
    ],
    ...said,
  }
}

async function page(...replies: Parameters<typeof serverThat>) {
  const asked = serverThat(...replies)
  const it = shown(ReceiptPage)
  await flushPromises()
  return { it, asked, words: () => it.text().replace(/\s+/g, ' ') }
}

describe('the receipt', () => {
  it('does not call cheaper what was never bought', async () => {
    const some = await page({ data: receiptOf() })
    expect(some.words()).toContain('2 not bought')
    const none = await page({ data: receiptOf({}, { paid: 0, not_bought: 5 }) })
    expect(none.words()).toContain('not bought')
    expect(none.words()).not.toContain('5 not bought')
  })

  it('is corrected cell by cell, and shows what it then comes to', async () => {
    const after = receiptOf({ paid: '$16.00' }, { paid: 4, not_bought: 1 })
    const { it: told, asked, words } = await page({ data: receiptOf() }, { data: after })
    const paid = told.get('[aria-label="Paid for, 2x4 pine 8 ft"]')
    await paid.setValue('4')
    await paid.trigger('keydown', { key: 'Enter' })
    await flushPromises()
    expect(asked[1]).toMatchObject({ method: 'PUT', body: { line: 'pine', count: '4' } })
    expect(words()).toContain('$16.00')
  })

  it('keeps in its field what cannot be read', async () => {
    const refused = {
      status: 422,
      data: { detail: '', problems: [{ place: 'price', message: 'no price' }] },
    }
    const { it: told } = await page({ data: receiptOf() }, refused)
    const price = told.get<HTMLInputElement>('[aria-label="Price paid for one, 2x4 pine 8 ft"]')
    await price.setValue('about four')
    await price.trigger('keydown', { key: 'Enter' })
    await flushPromises()
    expect(told.get('[role=alert]').text()).toBe('no price')
    expect(price.element.value).toBe('about four')
  })

  it('writes prices into the list where something was learned', async () => {
    const {
      it: told,
      asked,
      words,
    } = await page({ data: receiptOf({ learns: 1 }) }, { data: receiptOf() })
    const button = told.findAll('button').find((one) => one.text().startsWith('Write 1 price'))!
    await button.trigger('click')
    await flushPromises()
    expect(asked[1]!.path).toContain('/keep-prices')
    expect(words()).toContain('1 price is in the list; undo stands there')
  })

  it('says why nothing was written', async () => {
    const { it: told } = await page({ data: receiptOf({ learns: 2 }) }, 'no connection')
    const button = told.findAll('button').find((one) => one.text().startsWith('Write 2 prices'))!
    await button.trigger('click')
    await flushPromises()
    expect(told.get('[role=alert]').text()).toContain('there is no connection')
  })

  it('is of no trip, or could not be loaded', async () => {
    expect((await page({ status: 404 })).words()).not.toContain('What was paid')
    const { words } = await page({ status: 500 })
    expect(words()).toContain('could not be loaded')
  })
})
