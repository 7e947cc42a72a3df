import { expect, test } from 'vitest'
import { shown } from '../testing/shown'
import RuledTable from './RuledTable.vue'

const COLUMNS = [
  { name: 'stock', title: 'stock', look: 'called' },
  { name: 'price', title: 'price', right: true },
  { name: 'note', title: 'note', roomy: true },
  { name: 'acts', title: 'remove', unseen: true },
]
const ROWS = [
  { id: 'a', stock: '2x4', price: '4.10', note: 'straight' },
  { id: 'b', stock: '1x6', price: '', note: '' },
]

function table(more: Record<string, unknown> = {}, slots: Record<string, string> = {}) {
  const keyOf = (row: { id: string }) => row.id
  return shown(
    RuledTable as never,
    { called: 'Prices', columns: COLUMNS, rows: ROWS, keyOf, ...more },
    slots,
  )
}

test('a column shows the field of its name, or what is made of it', () => {
  const it = table({}, { price: '<template #price="{ row }">{{ row.price || "none" }}</template>' })
  const cells = it.findAll('tbody td').map((one) => one.text())
  expect(cells).toEqual(['2x4', '4.10', 'straight', '', '1x6', 'none', '', ''])
})

test('it is a region that can be scrolled by keys, with a name', () => {
  const region = table({ atLeast: 760 }).get('[role="region"]')
  expect(region.attributes()).toMatchObject({ 'aria-label': 'Prices', tabindex: '0' })
  expect(region.get('table').attributes('style')).toContain('min-width: 760px')
})

test('figures stand to the right, in their heading, too; a heading may be said only', () => {
  const it = table()
  const heads = it.findAll('th')
  expect(heads[1]!.classes()).toContain('to-right')
  expect(it.findAll('tbody td')[1]!.classes()).toContain('to-right')
  expect(heads[3]!.get('span').classes()).toContain('said-only')
  expect(heads[2]!.classes()).toContain('roomy')
})

test('a row looks as it is told, and opens', () => {
  const it = table(
    {
      look: (row: { id: string }) => ({ lit: row.id === 'b' }),
      isOpen: (row: { id: string }) => row.id === 'a',
    },
    { under: '<template #under="{ row }">more of {{ row.stock }}</template>' },
  )
  const rows = it.findAll('tbody tr')
  expect(rows).toHaveLength(3)
  expect(rows[1]!.text()).toBe('more of 2x4')
  expect(rows[1]!.get('td').attributes('colspan')).toBe('4')
  expect(rows[2]!.classes()).toContain('lit')
})

test('sums stand at the foot where there are any', () => {
  expect(table().find('tfoot').exists()).toBe(false)
  const it = table({}, { foot: '<tr><td>in all</td></tr>' })
  expect(it.get('tfoot').text()).toBe('in all')
})
