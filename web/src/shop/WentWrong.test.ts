import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { BenchEvent } from '../api'
import { cardOf, cuttingOf } from '../testing/shop'
import { press } from '../testing/press'
import { shown } from '../testing/shown'
import { NOTHING_SAID } from './useCutting'
import WentWrong from './WentWrong.vue'

const CARD = cardOf([1, 2])
const CUTTING = cuttingOf([CARD])

async function dialog(refused?: Partial<BenchEvent>, more: Record<string, unknown> = {}) {
  const card = {
    ...CARD,
    isDone: false,
    rows: CARD.rows.map((row) => ({ ...row, left: row.cuts, waits: false })),
  }
  const it = shown(WentWrong, {
    modelValue: true,
    cutting: CUTTING,
    card,
    row: card.rows[1],
    refused: refused && { ...NOTHING_SAID, id: 'e', kind: 'miscut', ...refused },
    ...more,
  })
  await flushPromises()
  return it
}

const fields = () => [
  ...document.querySelectorAll<HTMLInputElement>('.v-dialog [data-takes] input'),
]

async function type(field: HTMLInputElement | undefined, text: string) {
  field!.value = text
  field!.dispatchEvent(new Event('input'))
  await flushPromises()
}

describe('what went wrong', () => {
  it('is a miscut of the next cut, and says how long it should be', async () => {
    const it = await dialog()
    expect(document.body.textContent.replace(/\s+/g, ' ')).toContain('It should be 20″')
    await type(fields()[0], '19 1/2')
    await press('Plan around it')
    expect(it.emitted('told')).toEqual([['miscut', { cuts: '2.1', now: '19 1/2' }]])
    expect(it.emitted('update:modelValue')?.at(-1)).toEqual([false])
  })

  it('stands there again as it was refused', async () => {
    await dialog({ cuts: '1.1', now: '25' })
    expect(fields().map((one) => one.value)).toEqual(['25'])
  })

  it('is a bad spot between two figures of one piece', async () => {
    const it = await dialog({ kind: 'flaw', board: 1, start: '10', end: '' })
    await type(fields()[1], '12')
    await press('Plan around it')
    expect(it.emitted('told')).toEqual([['flaw', { board: 1, piece: 0, start: '10', end: '12' }]])
  })

  it('is another length of a board, or a piece that is lost', async () => {
    const length = await dialog({ kind: 'length', board: 2, now: '95' })
    await press('Plan around it')
    expect(length.emitted('told')).toEqual([['length', { board: 2, now: '95' }]])
    length.unmount()
    const lost = await dialog({ kind: 'lost', board: 2 })
    await press('Plan around it')
    expect(lost.emitted('told')).toEqual([['lost', { board: 2, piece: 0 }]])
  })

  it('is a bad spot where nothing of the set-up is measured', async () => {
    await dialog(undefined, { card: undefined, row: undefined })
    expect(document.body.textContent).toContain('Measured from the end nearest the marked one.')
  })
})
