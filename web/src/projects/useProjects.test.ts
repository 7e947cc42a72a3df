import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { keys } from '../api'
import { projectOf } from '../testing/projects'
import { serverThat } from '../testing/server'
import { within } from '../testing/within'
import { useProjects } from './useProjects'

async function projects(fails = false) {
  const there = new Map([['1', 'Boardwalk']])
  const gone = new Map<string, string>()
  const move = (id: string, from: Map<string, string>, to?: Map<string, string>) => {
    to?.set(id, from.get(id)!)
    from.delete(id)
  }
  const listed = (of: Map<string, string>) => [...of].map(([id, name]) => ({ id, name }))
  const asked = serverThat(({ method, path }) => {
    if (method !== 'GET' && fails) return 'no connection'
    if (method === 'DELETE' && path.includes('/deleted-')) move('1', gone)
    else if (method === 'DELETE') move('1', there, gone)
    else if (method === 'POST') move('1', gone, there)
    return { data: method === 'GET' ? listed(path.includes('deleted') ? gone : there) : {} }
  })
  const { it, queries } = within(() => useProjects())
  await flushPromises()
  const names = (of: { value: unknown }) => (of.value as { name: string }[]).map((one) => one.name)
  return { ...it, asked, queries, names }
}

describe('the projects', () => {
  it('can be deleted, and brought back', async () => {
    const { rows, deleted, remove, bringBack, names } = await projects()
    await remove('1')
    await flushPromises()
    expect([names(rows), names(deleted)]).toEqual([[], ['Boardwalk']])
    await bringBack('1')
    await flushPromises()
    expect([names(rows), names(deleted)]).toEqual([['Boardwalk'], []])
  })

  it('can be deleted for good', async () => {
    const { rows, deleted, remove, removeForGood, names } = await projects()
    await remove('1')
    await removeForGood('1')
    await flushPromises()
    expect([names(rows), names(deleted)]).toEqual([[], []])
  })

  it('say so where nothing was done', async () => {
    const { remove, fault, rows, names } = await projects(true)
    await remove('1')
    expect(fault.value).toContain('the server does not answer')
    expect(names(rows)).toEqual(['Boardwalk'])
  })

  it('know nothing any more of one that is deleted', async () => {
    const { remove, take, queries } = await projects()
    take(projectOf({ id: '1' }))
    expect(queries.getQueryData(keys.project('1'))).toBeDefined()
    await remove('1')
    expect(queries.getQueryData(keys.project('1'))).toBeUndefined()
  })
})
