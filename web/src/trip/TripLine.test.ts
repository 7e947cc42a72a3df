import { describe, expect, it } from 'vitest'
import { inches } from '../testing/projects'
import { shown } from '../testing/shown'
import { lineOf } from '../testing/trips'
import TripLine from './TripLine.vue'
import type { LineNow } from './unsent'

function line(said: Partial<LineNow>, props: Record<string, unknown> = {}) {
  const now = { ...lineOf({ wanted: 5, taken: 0, ...said }), toTake: 5, ...said } as LineNow
  return shown(TripLine, { line: now, open: false, tag: undefined, ...props })
}

const words = (of: ReturnType<typeof line>) => of.text().replace(/\s+/g, ' ')
const acts = (of: ReturnType<typeof line>) => of.findAll('.acts button').map((one) => one.text())

describe('a line at the yard', () => {
  it('says how many are taken of those wanted', () => {
    expect(words(line({ taken: 2, toTake: 3 }))).toContain('2 of 5')
  })

  it('never says more are taken than wanted; the others are to be put back', () => {
    const told = words(line({ taken: 7, toTake: 0, put_back: 2 }))
    expect(told).toContain('5 of 5')
    expect(told).toContain('2 in your cart are not needed: put them back')
    expect(words(line({ put_back: 1 }))).toContain('1 in your cart is not needed: put it back')
  })

  it('takes one with one press, until all are got', async () => {
    const one = line({ toTake: 5 })
    await one.get('.got').trigger('click')
    expect(one.emitted('took')).toEqual([[1]])
    const all = line({ taken: 5, toTake: 0 })
    expect(all.get('.got').text()).toBe('All got')
    expect(all.get('.got').attributes('disabled')).toBeDefined()
  })

  it('has no price, that of the list, or that of the tag', () => {
    expect(words(line({}))).toContain('no price, tag?')
    expect(words(line({ price: '$4.00' }))).toContain('$4.00 each, tag?')
    expect(words(line({ price: '$4.00', tag: '$4.20' }))).toContain('tag $4.20, list $4.00')
    expect(words(line({ price: '$4.00' }, { tag: '4.35' }))).toContain('tag says 4.35')
    expect(words(line({ tag: '$4.20' }, { tag: '' }))).toContain('no tag')
  })

  it('says how many are left there where that is known', () => {
    expect(words(line({ left: 3, limited: true }))).toContain('3 left there')
    expect(words(line({ left: 0, limited: true }))).toContain('none left there')
    expect(words(line({ left: 3 }))).not.toContain('left there')
  })

  it('has when it is opened what can be done with it now', () => {
    const plain = line({ taken: 2, toTake: 3 }, { open: true })
    expect(acts(plain).slice(0, 3)).toEqual(['Got all 3', 'Put 1 back', 'No more of these'])
    const none = line({ toTake: 1, wanted: 1, is_board: false }, { open: true })
    expect(acts(none)).toEqual(['None of these', 'Tag says …', 'Only a few …'])
  })

  it('keeps measured boards apart: one of them is taken back, not put back', async () => {
    const board = { event: 'e1', length: inches(96), notes: ['bow'], kept: true, idle: false }
    const told = line({ taken: 1, toTake: 4, boards: [board] as never }, { open: true })
    expect(acts(told)).not.toContain('Put 1 back')
    expect(told.get('.boards').text()).toContain('bow')
    await told.get('.take-back').trigger('click')
    expect(told.emitted('release')).toEqual([['e1']])
  })
})
