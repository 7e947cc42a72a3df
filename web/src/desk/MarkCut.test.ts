import { describe, expect, it, vi } from 'vitest'
import type { Outcome, Plan } from '../api'
import type { ProjectOnDesk } from '../project'
import { press } from '../testing/press'
import { inches, layoutOf, planOf } from '../testing/projects'
import { shown } from '../testing/shown'
import MarkCut from './MarkCut.vue'

const kept = layoutOf({
  count: 2,
  keep: [{ length: inches(31), width: null }] as never,
  rack_numbers: [4, 9],
})

function marking(plan: Plan, outcome: Outcome<unknown> = { kind: 'done', data: {} }) {
  const markCut = vi.fn(() => Promise.resolve(outcome))
  const it = shown(MarkCut, { plan, desk: { markCut } as unknown as ProjectOnDesk })
  return { it, markCut, text: () => document.body.textContent.replace(/\s+/g, ' ') }
}

/** The dialog comes when it is wanted. */
async function ask() {
  await press('Mark as cut')
  await vi.waitFor(() => expect(document.body.textContent).toContain('Are these boards cut?'))
}

describe('marking a plan cut', () => {
  it('is for a plan with boards that are not cut yet', () => {
    expect(marking(planOf({})).it.find('button').exists()).toBe(false)
    const cut = planOf({ layouts: [kept] }, { stage: 'cut' })
    expect(marking(cut).it.find('button').exists()).toBe(false)
  })

  it('says what comes onto the rack and what comes off it', async () => {
    const { text } = marking(planOf({ layouts: [kept] }))
    await ask()
    expect(text()).toContain('2x4, 31″, 2 of them')
    expect(text()).toContain('Boards 4, 9 come off the rack')
  })

  it('says so where nothing is large enough to keep', async () => {
    const { text } = marking(planOf({ layouts: [layoutOf({ rack_numbers: [4] })] }))
    await ask()
    expect(text()).toContain('No offcut is large enough to keep')
    expect(text()).toContain('Board 4 comes off the rack')
  })

  it('changes nothing before it is said', async () => {
    const { markCut } = marking(planOf({ layouts: [kept] }))
    await ask()
    await press('Not yet')
    expect(markCut).not.toHaveBeenCalled()
    await ask()
    await press('They are cut')
    expect(markCut).toHaveBeenCalledWith('cut')
  })

  it('says why it was refused', async () => {
    const problems = [{ place: 'plan', message: 'board 4 is not on the rack any more' }]
    const refused = { kind: 'refused' as const, detail: '', problems }
    const { text } = marking(planOf({ layouts: [kept] }), refused)
    await ask()
    await press('They are cut')
    expect(text()).toContain('board 4 is not on the rack any more')
  })
})
