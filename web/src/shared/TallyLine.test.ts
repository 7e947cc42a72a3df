import { describe, expect, it } from 'vitest'
import type { Plan } from '../api'
import { shown } from '../testing/shown'
import TallyLine from './TallyLine.vue'

type Tally = Partial<Plan['tally']>

function planOf(tally: Tally, more: Record<string, unknown> = {}): Plan {
  return {
    status: 'done',
    seconds: 3.4,
    tally: {
      boards: 4,
      spare: 0,
      owned: 0,
      longest: '12 ft',
      cost: '$33.44',
      with_tax: '$35.45',
      unpriced: 0,
      waste: '6.1',
      keepable: 1,
      board_feet: '20.0',
      weight: '60 lb',
      bound: null,
      unplaced: 0,
      later: 0,
      claim: {
        proven: true,
        checked: true,
        headline: 'No cheaper purchase exists',
        detail: 'at Bell Yard',
      },
      ...tally,
    },
    shopping: { lines: [{}], total: '$50.00', total_note: '', hardware: { lines: [{}] } },
    ...more,
  } as unknown as Plan
}

function tally(plan: Plan, props: Record<string, unknown> = {}) {
  return shown(TallyLine, { plan, planning: false, outdated: false, failed: false, ...props })
}

const texts = (plan: Plan, props = {}) =>
  tally(plan, props)
    .findAll('.one')
    .map((one) => one.text().replace(/\s+/g, ' '))

describe('the figures', () => {
  it('are boards, cost, waste, board feet and weight', () => {
    expect(texts(planOf({}))).toEqual([
      '4boards, longest 12 ft',
      '$33.44with tax $35.45',
      '6.1 %waste, 1 offcut to keep',
      '20.0 bfboard feet',
      '60 lbweight, air-dry',
    ])
  })

  it('never say 1 boards', () => {
    expect(texts(planOf({ boards: 1, keepable: 2 }))[0]).toBe('1board, longest 12 ft')
  })

  it('count spare boards, and say which come from the rack', () => {
    expect(texts(planOf({ spare: 2 }))[0]).toBe('6boards, 2 of them spare')
    expect(texts(planOf({ owned: 3 }))[0]).toBe('4to buy, 3 from the rack')
  })

  it('say what has no price', () => {
    expect(texts(planOf({ unpriced: 2 }))[1]).toBe('$33.44without 2 unpriced')
    const none = planOf({ unpriced: 4, cost: null })
    expect(texts(none)[1]).toBe('no pricechoose a yard')
    expect(texts(none, { yard: 'Ferry Lane' })[1]).toBe('no priceat Ferry Lane')
    expect(texts(planOf({ boards: 0, cost: null, with_tax: null }))[1]).toBe('–cost')
  })

  it('are on a list the list’s own total', () => {
    expect(texts(planOf({}), { wholeList: true })[1]).toBe('$50.00in all, with tax')
    expect(tally(planOf({}), { wholeList: true }).get('.claim').text()).toContain('of the wood')
  })
})

describe('the claim', () => {
  it('is what was proven', () => {
    const wrapper = tally(planOf({}))
    expect(wrapper.get('.claim').classes()).toContain('proven')
    expect(wrapper.get('.claim').text()).toContain('No cheaper purchase exists')
  })

  it('opens to its proof where there is one', async () => {
    const wrapper = tally(planOf({}))
    expect(wrapper.get('.claim button').text()).toBe('No cheaper purchase exists: show why')
    const claim = { proven: false, checked: false, headline: 'No price', detail: '' }
    expect(tally(planOf({ claim })).find('.claim button').exists()).toBe(false)
  })

  it('is not made of what was changed since', () => {
    const wrapper = tally(planOf({}), { outdated: true })
    expect(wrapper.get('.claim').classes()).not.toContain('proven')
    expect(wrapper.get('.claim').text()).not.toContain('No cheaper purchase exists')
  })

  it('is not made while better may come, and can be stopped', async () => {
    const claim = { proven: false, checked: false, headline: 'open', detail: '' }
    const wrapper = tally(planOf({ claim, bound: '$30.00' }, { status: 'running' }), {
      planning: true,
    })
    expect(wrapper.get('.claim').text()).toContain('none below $30.00 exists')
    await wrapper.get('.claim button').trigger('click')
    expect(wrapper.emitted('stop')).toHaveLength(1)
  })

  it('is that planning failed, and can be asked for again', async () => {
    const wrapper = tally(planOf({}), { failed: true })
    expect(wrapper.get('.claim').text()).toContain('Planning failed')
    await wrapper.get('.claim button').trigger('click')
    expect(wrapper.emitted('again')).toHaveLength(1)
  })

  it('is not green where parts are not planned yet, and says so once', () => {
    const claim = {
      proven: false,
      checked: false,
      headline: '1 part not planned yet',
      detail: 'the reasons stand',
    }
    const wrapper = tally(planOf({ later: 1, claim }))
    expect(wrapper.text().split('not planned yet')).toHaveLength(2)
    expect(wrapper.get('.claim').classes()).not.toContain('proven')
  })
})
