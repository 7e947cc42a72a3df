import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Outcome } from '../api'
import { within } from '../testing/within'
import { useCells } from './useCells'

interface Board {
  id: string
  length: string
  note: string | null
}
const board: Board = { id: 'b7', length: '60', note: null }

beforeEach(() => sessionStorage.clear())

function cells(save = vi.fn(() => Promise.resolve({ kind: 'done' } as Outcome<unknown>))) {
  const cell = within(() => useCells<Board>('rack', (row) => `board ${row.id}`, save)).it
  return { cell, save }
}

describe('a cell of a table', () => {
  it('is named after its row', () => {
    expect(cells().cell(board, 'length', 'Length').label).toBe('Length of board b7')
  })

  it('shows what is saved, and an empty one for nothing', () => {
    const { cell } = cells()
    expect(cell(board, 'length', 'Length').saved).toBe('60')
    expect(cell(board, 'note', 'Note').saved).toBe('')
  })

  it('saves its own field of its own row', async () => {
    const { cell, save } = cells()
    await cell(board, 'length', 'Length').save('61')
    expect(save).toHaveBeenCalledWith(board, 'length', '61')
  })

  it('keeps what is typed and not saved, for itself alone, over a reload', async () => {
    cells().cell(board, 'length', 'Length').onKeep('6 feet or so')
    await flushPromises()
    const { cell } = cells()
    expect(cell(board, 'length', 'Length').draft).toBe('6 feet or so')
    expect(cell(board, 'note', 'Note').draft).toBeUndefined()
    expect(cell({ ...board, id: 'b8' }, 'length', 'Length').draft).toBeUndefined()
  })

  it('lets go of it once it is saved', async () => {
    const { cell } = cells()
    cell(board, 'length', 'Length').onKeep('61')
    cell(board, 'length', 'Length').onDrop()
    await flushPromises()
    expect(cells().cell(board, 'length', 'Length').draft).toBeUndefined()
  })
})
