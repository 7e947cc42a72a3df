import { describe, expect, it } from 'vitest'
import type { Hardware, Plan } from '../api'
import { useLighting } from '../drawing'
import { inches, partOf, planOf, projectOf, sectionOf } from '../testing/projects'
import { shown } from '../testing/shown'
import { within } from '../testing/within'
import GroupShares from './GroupShares.vue'
import HardwareTable from './HardwareTable.vue'
import ListTable from './ListTable.vue'

type Shopping = Plan['shopping']
type Line = Shopping['lines'][number]

function lineOf(said: Partial<Line> = {}): Line {
  return {
    ...{ stock: '2x4 treated', named_length: '12 ft', count: 5, kind: 'treated', how: '' },
    ...{ price: '$8.36', line_price: '$41.80', parts: ['a'], spare: false },
    ...{ real_length: null, section: sectionOf(2, 4) },
    ...said,
  }
}

const NO_HARDWARE: Hardware = { joints: [], lines: [], price: '$0.00', problems: [], unpriced: 0 }

function listOf(lines: Line[], said: Partial<Shopping> = {}) {
  const shopping: Shopping = {
    ...{ lines, hardware: NO_HARDWARE, groups: [], copies: 1, unpriced: 0 },
    ...{ subtotal: '$41.80', tax: '$2.93', tax_rate: '7', tax_included: false },
    ...{ total: '$44.73', total_note: '', wood_total: '$44.73', per_copy: '$44.73' },
    ...{ budget: '', over_budget: false, margin: '' },
    ...said,
  }
  const tally = { boards: 5, spare: 1 }
  const plan = planOf({}, { shopping, tally } as unknown as Partial<Plan>)
  const project = projectOf({ parts: [partOf({ id: 'a', mark: 'A', name: 'rail' })] })
  const { it: lighting } = within(() => useLighting('list'))
  const found = shown(ListTable, { project, plan, lighting })
  return { found, lighting, words: found.text().replace(/\s+/g, ' ') }
}

describe('what to buy', () => {
  it('is told line by line and summed, with spares and tax', () => {
    const { words } = listOf([lineOf()])
    expect(words).toContain('2x4 treated')
    expect(words).toContain('6wood$41.80')
    expect(words).toContain('tax 7 %$2.93')
    expect(words).toContain('total$44.73')
    expect(words).not.toContain('without hardware')
  })

  it('says where a price is missing, and what a named length really is', () => {
    const { words } = listOf([lineOf({ price: null, line_price: null, real_length: inches(144) })])
    expect(words.match(/no price/g)).toHaveLength(2)
    expect(words).toContain('really 144″')
  })

  it('explains a price where it comes about', () => {
    const { found } = listOf([lineOf({ how: '$0.70 a foot' })])
    expect(found.get('details summary').text()).toBe('$8.36')
    expect(found.get('details').text()).toContain('$0.70 a foot')
  })

  it('lights the part that a line is for, and marks spares', async () => {
    const { found, lighting } = listOf([lineOf(), lineOf({ spare: true, parts: [], count: 1 })])
    expect(found.text()).toContain('spare, against culls')
    await found.get('.mark').trigger('click')
    expect(lighting.selected.value).toBe('a')
    expect(found.findAll('tbody tr')[0]!.classes()).toContain('lit')
    expect(found.findAll('tbody tr')[1]!.classes()).toContain('spare')
  })

  it('says budget, margin and what each of several costs', () => {
    const { found, words } = listOf([lineOf()], {
      ...{ budget: '$4.73 over the budget', over_budget: true, margin: '$20.00, 31 %' },
      ...{ copies: 3, per_copy: '$14.91', total_note: 'some without a price' },
    })
    expect(words).toContain('total, some without a price')
    expect(words).toContain('each of 3$14.91')
    expect(words).toContain('$20.00, 31 %')
    expect(found.get('tr.over').text()).toBe('$4.73 over the budget')
  })

  it('has hardware beside the wood where there is some', () => {
    const line = {
      ...{ name: 'screw', length: inches(3), needed: '24', have: '', left: '', price: '$5.00' },
      ...{ packs: [], used_for: [] },
    }
    const { words } = listOf([lineOf()], {
      hardware: { ...NO_HARDWARE, lines: [line], price: '$5.00', unpriced: 1 },
    })
    expect(words).toContain('hardware, some without a price$5.00')
    expect(words).toContain('without hardware$44.73')
  })
})

describe('hardware', () => {
  const screw: Hardware['lines'][number] = {
    ...{ name: 'screw', length: inches(3), needed: '124', have: '20', left: '26', price: '$14.20' },
    packs: [
      { name: 'pack', count: 1, content: '100', price: '$9.50' },
      { name: 'bag', count: 2, content: '25', price: '$2.35' },
    ],
    used_for: ['A to B', 'B to C'],
  }

  it('is counted, with packs, what is in the drawer and what is left over', () => {
    const found = shown(HardwareTable, { hardware: { ...NO_HARDWARE, lines: [screw] } })
    const words = found.text().replace(/\s+/g, ' ')
    expect(words).toContain('screw 3″')
    expect(words).toContain('20 in the drawer')
    expect(words).toContain('1 of 100 at $9.50')
    expect(words).toContain('2 of 25 at $2.35')
    expect(words).toContain('26 left over')
    expect(words).toContain('A to B; B to C')
  })

  it('shows nothing where no pack of it is sold', () => {
    const oil = {
      ...{ name: 'oil', length: null, needed: '2.2 qt', have: '', left: '', price: null },
      ...{ packs: [], used_for: ['oil on A'] },
    }
    const found = shown(HardwareTable, {
      hardware: { ...NO_HARDWARE, lines: [oil] } as unknown as Hardware,
    })
    expect(found.text()).toContain('oil on A')
    expect(found.text()).not.toContain('[]')
  })

  it('tells what could not be read, and warns at the joint', () => {
    const joint = {
      ...{ text: 'A+B, 4, screw', count: 4, fastener: 'screw', length: inches(3) },
      ...{ warnings: ['comes through'], notes: ['pilot holes'] },
    }
    const hardware = { ...NO_HARDWARE, problems: ['rules, line 2: not taken'], joints: [joint] }
    const found = shown(HardwareTable, { hardware })
    expect(found.find('table').exists()).toBe(false)
    expect(found.get('[role="alert"]').text()).toContain('rules, line 2: not taken')
    expect(found.get('.joints').text().replace(/\s+/g, ' ')).toContain('4 × screw 3″')
    expect(found.get('.minded').text()).toBe('comes through')
  })
})

describe('the wood by groups', () => {
  it('is shared out where there is more than one', () => {
    const groups = [
      { name: 'frame', pieces: 4, cost: '$20.00' },
      { name: '', pieces: 2, cost: '$1.80' },
    ]
    const words = shown(GroupShares, { groups }).text().replace(/\s+/g, ' ')
    expect(words).toContain('frame4$20.00')
    expect(words).toContain('without a group2$1.80')
    expect(shown(GroupShares, { groups: groups.slice(0, 1) }).text()).toBe('')
  })
})
