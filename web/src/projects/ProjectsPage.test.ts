import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import type { ProjectRow } from '../api'
import { press } from '../testing/press'
import { type Asked, serverThat } from '../testing/server'
import { shown } from '../testing/shown'
import ProjectsPage from './ProjectsPage.vue'

beforeEach(() => sessionStorage.clear())

function rowOf(said: Partial<ProjectRow> = {}): ProjectRow {
  return {
    ...{ id: 'rack', name: 'Log rack', unit: 'in', copies: 1, parts: 8, yard: 'Bell Yard' },
    ...{
      boards: 12,
      cost: '$101.62',
      proven: true,
      is_cut: false,
      updated: '2026-11-02T10:00:00Z',
    },
    ...said,
  }
}

/** The page over a server that deletes and brings back. */
async function page(
  rows: ProjectRow[],
  more: (asked: Asked) => object | undefined = () => undefined,
) {
  let here = rows
  let gone: { id: string; name: string; deleted: string }[] = []
  const asked = serverThat((one) => {
    const answer = more(one)
    if (answer) return answer
    if (one.method === 'DELETE' && one.path.startsWith('/api/projects/')) {
      gone = here.map(({ id, name }) => ({ id, name, deleted: '2026-11-30' }))
      here = []
    } else if (one.path.endsWith('/bring-back')) {
      here = rows
      gone = []
    } else if (one.method === 'DELETE') gone = []
    if (one.path === '/api/overview') return { data: here }
    if (one.path === '/api/deleted-projects') return { data: gone }
    return { data: [] }
  })
  const it = shown(ProjectsPage)
  await flushPromises()
  return { it, asked, words: () => document.body.textContent.replace(/\s+/g, ' ') }
}

describe('all projects', () => {
  it('stand with what their plans come to', async () => {
    const open = rowOf({ id: 'new', name: 'Ramp', boards: null, cost: null, proven: false })
    const { it: found, words } = await page([rowOf({ copies: 3, unit: 'mm' }), open])
    expect(words()).toContain('mm, build 3')
    expect(words()).toContain('proven least')
    expect(words()).toContain('not made yet')
    expect(found.get('a.link').attributes('href')).toBe('/projects/rack')
  })

  it('are none at first, and say what comes next', async () => {
    const { words } = await page([])
    expect(words()).toContain('Name what you want to build')
  })

  it('are deleted, brought back at once or later, or let go for good', async () => {
    const { asked, words } = await page([rowOf()])
    await press('Delete')
    expect(words()).toContain('Log rack is deleted.')
    await press('Bring it back')
    expect(words()).toContain('$101.62')
    await press('Delete')
    await press('Delete for good')
    expect(words()).toContain('Delete Log rack for good?')
    await press('Keep it')
    await press('Bring back')
    expect(asked.filter((one) => one.path.endsWith('/bring-back'))).toHaveLength(2)
  })

  it('say that nothing was done where the server does not answer', async () => {
    const { words } = await page([rowOf()], ({ method }) =>
      method === 'DELETE' ? { status: 503 } : undefined,
    )
    await press('Delete')
    expect(words()).toContain('That was not done')
    expect(words()).not.toContain('is deleted')
  })

  it('come from a file, or say what is wrong with it', async () => {
    const problems = [{ place: 'parts[0].length', message: 'a length is missing' }]
    const { it: found, words } = await page([], ({ path }) =>
      path === '/api/projects/import' ? { status: 422, data: { detail: '', problems } } : undefined,
    )
    const field = found.get<HTMLInputElement>('input[type="file"]')
    const file = new File(['{}'], 'gate.project.json', { type: 'application/json' })
    Object.defineProperty(field.element, 'files', { value: [file] })
    await field.trigger('change')
    await flushPromises()
    await new Promise((resolve) => setTimeout(resolve, 50))
    expect(words()).toContain('a length is missing')
  })
})
