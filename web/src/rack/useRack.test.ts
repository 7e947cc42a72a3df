import { flushPromises } from '@vue/test-utils'
import { ref } from 'vue'
import { describe, expect, it, vi } from 'vitest'
import { serverThat } from '../testing/server'
import { within } from '../testing/within'
import { useRack } from './useRack'

const rackOf = (version: number, boards: string[]) => ({
  data: { version, boards: boards.map((id) => ({ id })), can_undo: false, can_redo: false },
})

/** A rack of version 4 with one board, and what is asked of the server after that. */
async function rackThat(...replies: Parameters<typeof serverThat>) {
  const asked = serverThat(rackOf(4, ['oak']), ...replies)
  const { it: rack } = within(() => useRack(ref(''), ref(1), ref<string>()))
  await vi.waitFor(() => expect(asked.length).toBe(1))
  await flushPromises()
  return { rack, asked }
}

describe('the rack', () => {
  it('is told of a board with the version that was seen', async () => {
    const { rack, asked } = await rackThat(rackOf(5, ['oak', 'pine']))
    const outcome = await rack.writeBoard('pine', { stock: '1x6', length: '40' } as never)
    expect(outcome.kind).toBe('done')
    expect(`${asked[1]?.method} ${asked[1]?.path}`).toBe('PUT /api/rack/boards/pine')
    expect(asked[1]?.body).toMatchObject({ version: 4, stock: '1x6', length: '40' })
    expect(asked[1]?.body.change_id).toMatch(/^[0-9a-f-]{36}$/)
  })

  it('loses boards together, and has each change under an id of its own', async () => {
    const { rack, asked } = await rackThat(rackOf(5, []))
    await rack.removeBoards(['oak'])
    await rack.removeBoards(['pine'])
    const removed = asked.filter((one) => one.path === '/api/rack/boards/remove')
    expect(removed.map((one) => one.body.boards)).toEqual([['oak'], ['pine']])
    expect(removed.map((one) => one.body.version)).toEqual([4, 5])
    expect(new Set(removed.map((one) => one.body.change_id)).size).toBe(2)
  })

  it('stays as it was where a change is refused', async () => {
    const problems = [{ place: 'length', message: 'how long is it?' }]
    const { rack } = await rackThat({ status: 422, data: { detail: 'no', problems } })
    const outcome = await rack.writeBoard('pine', { stock: '1x6', length: '' } as never)
    expect(outcome).toMatchObject({ kind: 'refused', problems })
  })
})
