import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import { useSearchedPage } from './useSearchedPage'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

async function searched(address = '/rack') {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/rack', component: { template: '<div />' } }],
  })
  await router.push(address)
  let it!: ReturnType<typeof useSearchedPage>
  const holder = { setup: () => ((it = useSearchedPage()), () => null) }
  mount(holder, { global: { plugins: [router] } })
  return { ...it, router }
}

describe('a page that is searched', () => {
  it('opens with what its address searches for', async () => {
    const { search, found } = await searched('/rack?find=2x6')
    expect([search.value, found.value]).toEqual(['2x6', '2x6'])
  })

  it('keeps what is searched for in the address', async () => {
    const { search, router } = await searched()
    search.value = 'cedar'
    await flushPromises()
    expect(router.currentRoute.value.fullPath).toBe('/rack?find=cedar')
    search.value = null as never
    await flushPromises()
    expect(router.currentRoute.value.fullPath).toBe('/rack')
  })

  it('asks only once typing rests', async () => {
    const { search, found } = await searched()
    search.value = 'ced'
    await flushPromises()
    expect(found.value).toBe('')
    await vi.advanceTimersByTimeAsync(250)
    expect(found.value).toBe('ced')
  })

  it('starts at the first page of another search', async () => {
    const { search, page } = await searched()
    page.value = 3
    search.value = 'cedar'
    await flushPromises()
    expect(page.value).toBe(1)
  })
})
