import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { press } from '../testing/press'
import { serverThat } from '../testing/server'
import { shown } from '../testing/shown'
import { toolboxOf } from '../testing/workshop'
import ToolsPage from './ToolsPage.vue'

beforeEach(() => {
  sessionStorage.clear()
  localStorage.clear()
})

async function page(...replies: Parameters<typeof serverThat>) {
  const asked = serverThat(...replies)
  const it = shown(ToolsPage)
  await flushPromises()
  return { it, asked, words: () => it.text().replace(/\s+/g, ' ') }
}

describe('the tools', () => {
  it('are told with their limits, and what plans may ask for', async () => {
    const { it: told, words } = await page({ data: toolboxOf() })
    expect(words()).toContain('Crosscuts up to 12″')
    expect(words()).toContain('45°')
    const crosscut = told.get<HTMLInputElement>('[aria-label="Crosscuts, square of miter saw"]')
    expect([crosscut.element.value, crosscut.element.dataset.takes]).toEqual(['12', 'length'])
  })

  it('change one limit at a time, from the version that was seen', async () => {
    const after = toolboxOf({ version: 3, can: ['Crosscuts up to 8 1/2″'] })
    const { it: told, asked, words } = await page({ data: toolboxOf() }, { data: after })
    const cell = told.get('[aria-label="Crosscuts, square of miter saw"]')
    await cell.setValue('8 1/2')
    await cell.trigger('keydown', { key: 'Enter' })
    await flushPromises()
    expect(asked[1]).toMatchObject({
      ...{ method: 'PUT', path: '/api/tools/saw' },
      body: { limits: { crosscut: '8 1/2' }, version: 2 },
    })
    expect(words()).toContain('8 1/2″')
  })

  it('keep a limit that cannot be, with what is wrong with it', async () => {
    const refused = { detail: '', problems: [{ place: 'crosscut', message: 'less than nothing' }] }
    const { it: told, words } = await page({ data: toolboxOf() }, { status: 422, data: refused })
    const cell = told.get<HTMLInputElement>('[aria-label="Crosscuts, square of miter saw"]')
    await cell.setValue('-12')
    await cell.trigger('keydown', { key: 'Enter' })
    await flushPromises()
    expect(words()).toContain('less than nothing')
    expect(cell.element.value).toBe('-12')
  })

  it('go, and are told apart by name where there are two', async () => {
    const two = toolboxOf()
    two.tools = [
      { ...two.tools[0]!, name: 'old saw' },
      { ...two.tools[0]!, id: 'other' },
    ]
    const { it: told, asked } = await page({ data: two }, { data: toolboxOf({ tools: [] }) })
    await told.get('[aria-label="Take away old saw"]').trigger('click')
    await flushPromises()
    expect(asked[1]).toMatchObject({ path: '/api/tools/remove', body: { tools: ['saw'] } })
    expect(told.text()).toContain('No tools')
  })

  it('are added by their kind; one without limits asks for nothing more', async () => {
    const sled = { id: 'sled', kind: 'sled', name: '', limits: {} }
    const { asked, words } = await page(
      { data: toolboxOf() },
      { data: toolboxOf({ tools: [sled] }) },
    )
    await press('Add it')
    expect(asked[1]).toMatchObject({ method: 'PUT', body: { kind: 'band saw', limits: {} } })
    expect(words()).toContain('No limits to enter.')
  })
})
