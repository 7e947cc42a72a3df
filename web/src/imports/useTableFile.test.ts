import { flushPromises } from '@vue/test-utils'
import { ref } from 'vue'
import { describe, expect, it, vi } from 'vitest'
import { within } from '../testing/within'
import { type Read, useTableFile } from './useTableFile'

interface Counted extends Read {
  parts: number
}

const file = (name: string) => new File(['stock,length'], name)
const answered = (data: unknown, status = 200) => {
  const response = new Response(null, { status })
  return Promise.resolve(status === 200 ? { data, response } : { error: data, response })
}

function table(
  ask = vi.fn((...[, columns]: [File, string]) =>
    answered({ problems: [], columns: [], choices: [], parts: columns.length }),
  ),
) {
  const open = ref(true)
  return { open, ask, ...within(() => useTableFile<Counted>(open, ask)).it }
}

describe('a table in a file', () => {
  it('is read as it is chosen', async () => {
    const { chosen, reading, ask } = table()
    await chosen(file('parts.csv'))
    expect(ask.mock.calls[0]?.[1]).toBe('')
    expect(reading.value?.parts).toBe(0)
  })

  it('is read again with what the builder says each column is', async () => {
    const { chosen, choose, ask } = table()
    await chosen(file('parts.csv'))
    await choose(['stock', '', 'length'])
    expect(ask.mock.calls[1]?.[1]).toBe('stock,,length')
  })

  it('forgets the columns of the file before it', async () => {
    const { chosen, choose, ask, columns } = table()
    await chosen(file('parts.csv'))
    await choose(['stock', 'length'])
    await chosen(file('other.csv'))
    expect(columns.value).toBe('')
    expect(ask.mock.calls[2]?.[1]).toBe('')
  })

  it('says what is wrong with it', async () => {
    const problems = [{ place: 'line 3', message: 'a length is missing' }]
    const told = table(vi.fn(() => answered({ problems, parts: 2 })))
    await told.chosen(file('parts.csv'))
    expect(told.problems.value).toEqual(problems)
  })

  it('says where it cannot be read at all', async () => {
    const told = table(vi.fn(() => answered({ detail: 'no table', problems: [] }, 422)))
    await told.chosen(file('parts.csv'))
    expect(told.problems.value.map((one) => one.message)).toEqual(['no table'])
    expect(told.reading.value).toBeUndefined()
  })

  it('is forgotten when the dialog is opened or closed', async () => {
    const { chosen, open, reading, file: picked } = table()
    await chosen(file('parts.csv'))
    open.value = false
    await flushPromises()
    expect(reading.value).toBeUndefined()
    expect(picked.value).toBeUndefined()
  })
})
