import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { serverThat } from '../testing/server'
import { shown } from '../testing/shown'
import ProofDialog from './ProofDialog.vue'

const count = {
  parts: [
    { part: 'A rail', counts: 2 },
    { part: 'B tie', counts: 1 },
  ],
  needed: 1036,
  boards: [{ board: '2x4 8 ft', price: '$5.13', holds: 9 }],
}

async function opened(data: unknown, status = 200) {
  const asked = serverThat({ data, status })
  shown(ProofDialog, { plan: 'plan', modelValue: true })
  await flushPromises()
  return { asked, said: (document.body.textContent ?? '').replace(/\s+/g, ' ') }
}

describe('the proof of a claim', () => {
  it('says what parts count, what boards hold, and what follows', async () => {
    const { asked, said } = await opened([
      { of: '2x4', counts: [count], tried: [], says: 'No boards under $20.52 hold 1,036.' },
    ])
    expect(asked[0]!.path).toBe('/api/plans/plan/proof')
    expect(said).toContain('A rail 2, B tie 1. All parts need 1,036.')
    expect(said).toContain('2x4 8 ft$5.139')
    expect(said).toContain('No boards under $20.52 hold 1,036.')
    expect(said).not.toContain('Count 1:')
  })

  it('numbers several counts, and names the purchases that were tried', async () => {
    const { said } = await opened([
      { of: 'cedar', counts: [count, count], tried: ['2 × 2x4 8 ft: $10.26'], says: '' },
    ])
    expect(said).toContain('Count 2: A rail 2')
    expect(said).toContain('some part is left over:')
    expect(said).toContain('2 × 2x4 8 ft: $10.26')
  })

  it('says so where the project has changed meanwhile', async () => {
    const { said } = await opened({ detail: 'gone', problems: [] }, 410)
    expect(said).toContain('The project has changed.')
  })
})
