import { nextTick } from 'vue'
import { beforeEach, describe, expect, it } from 'vitest'
import { within } from '../testing/within'
import { useCells } from './useCells'
import { useDrafts } from './useDrafts'

beforeEach(() => localStorage.clear())

describe('what is typed and not saved', () => {
  it('is kept by field, and survives a reload', async () => {
    const { it: drafts } = within(() => useDrafts('project'))
    drafts.keep('a.length', '40')
    drafts.keep('b.length', '41')
    drafts.drop('b.length')
    await nextTick()
    const { it: again } = within(() => useDrafts('project'))
    expect(again.drafts.value).toEqual({ 'a.length': '40' })
  })

  it('is kept apart for each thing', async () => {
    const { it: drafts } = within(() => useDrafts('project'))
    drafts.keep('a.length', '40')
    await nextTick()
    expect(within(() => useDrafts('other')).it.drafts.value).toEqual({})
  })
})

describe('a cell of a table', () => {
  const row = { id: '7', name: 'rail', length: '36', copies: 2 }
  const make = () =>
    within(() =>
      useCells<typeof row>(
        'rows',
        (one) => one.name,
        async (one, field: string, text) => ({ kind: 'done', data: [one.id, field, text] }),
      ),
    ).it

  it('knows its value, its name and where it is saved', async () => {
    const bound = make()(row, 'length', 'Length')
    expect(bound).toMatchObject({
      saved: '36',
      draft: undefined,
      label: 'Length of rail',
      place: 'length',
    })
    expect(await bound.save('40')).toEqual({ kind: 'done', data: ['7', 'length', '40'] })
    expect(make()(row, 'copies', 'Copies').saved).toBe('2')
  })

  it('has its own draft', async () => {
    const cell = make()
    cell(row, 'length', 'Length').onKeep('40')
    await nextTick()
    expect(cell(row, 'length', 'Length').draft).toBe('40')
    expect(cell({ ...row, id: '8' }, 'length', 'Length').draft).toBeUndefined()
    cell(row, 'length', 'Length').onDrop()
    expect(cell(row, 'length', 'Length').draft).toBeUndefined()
  })
})
