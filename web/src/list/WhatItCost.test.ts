import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { Plan } from '../api'
import { serverThat } from '../testing/server'
import { shown } from '../testing/shown'
import WhatItCost from './WhatItCost.vue'

const SPENT = {
  lines: [{ what: '2 boards by the list', paid: '$11.00' }],
  total: '$11.00',
  told: '$11.00, 1 board from the rack',
}

async function told(plan: Partial<Plan>, data: unknown = SPENT) {
  const asked = serverThat({ data })
  const it = shown(WhatItCost, {
    project: 'project',
    plan: { id: 'plan', stage: 'draft', already_cut: [], ...plan },
  })
  await flushPromises()
  return { asked, text: it.text().replace(/\s+/g, ' ') }
}

describe('what a project has cost', () => {
  it('is asked and told of one that is cut', async () => {
    const { asked, text } = await told({ stage: 'cut' })
    expect(asked[0]!.path).toBe('/api/projects/project/spent')
    expect(text).toContain('2 boards by the list$11.00')
    expect(text).toContain('in all$11.00')
    expect(text).toContain('1 board from the rack')
  })

  it('is told of one that is cut in part', async () => {
    expect((await told({ already_cut: [{}] as never })).text).toContain('What it has cost')
  })

  it('is not asked before anything is cut, and not told of nothing', async () => {
    expect((await told({})).asked).toEqual([])
    expect((await told({ stage: 'cut' }, { lines: [], total: '', told: '' })).text).toBe('')
  })
})
