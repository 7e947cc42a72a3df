import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { press } from '../testing/press'
import { type Asked, serverThat } from '../testing/server'
import { shown } from '../testing/shown'
import { sizeOf, wayOf } from '../testing/workshop'
import SizesPage from './SizesPage.vue'

beforeEach(() => {
  sessionStorage.clear()
  localStorage.clear()
})

const BOOK = {
  message: '',
  families: [
    {
      ...{ name: 'softwood boards', note: 'Dry.', source: 'a standard' },
      sizes: [sizeOf('1x4', 1, 4), sizeOf('2x4', 2, 4)],
    },
  ],
}

async function page(ways: object[] | { status: number; data: object } = [], book: object = BOOK) {
  const answer = ({ path }: Asked) =>
    path === '/api/yards'
      ? { data: [] }
      : path === '/api/sizes/ways'
        ? Array.isArray(ways)
          ? { data: ways }
          : ways
        : { data: book }
  const asked = serverThat(answer)
  const it = shown(SizesPage)
  await vi.waitFor(() => expect(it.text()).toContain('Source'))
  return { it, asked, words: () => it.text().replace(/\s+/g, ' ') }
}

describe('the size book', () => {
  it('draws every size of a family and says where its figures are from', async () => {
    const { it: told, words } = await page()
    expect(words()).toContain('Dry. Source: a standard.')
    expect(told.findAll('.sections svg')).toHaveLength(2)
    expect(words()).toContain('2x4')
  })

  it('names what to buy for a finished size', async () => {
    const glued = wayOf({ way: 'glue', boards: 2, size: '1x4', cost: null })
    const { it: told, asked, words } = await page([wayOf(), glued])
    const [thickness, width] = told.findAll('.ask input')
    await thickness!.setValue('3/4')
    await width!.setValue('6 1/8')
    await told.get('form.ask').trigger('submit')
    await flushPromises()
    const last = asked.find((one) => one.path === '/api/sizes/ways')
    expect(last?.method).toBe('GET')
    expect(words()).toContain('rip from')
    expect(words()).toContain('glue edge to edge')
    expect(words()).toContain('2 × 1x4')
    expect(words()).toContain('no price')
  })

  it('says at its field what cannot be read', async () => {
    const problems = [{ place: 'width', message: 'a width is missing' }]
    const { it: told, words } = await page({ status: 422, data: { detail: '', problems } })
    await press('Find')
    expect(words()).toContain('a width is missing')
    expect(told.find('[aria-label="Ways to that size"]').exists()).toBe(false)
  })
})
