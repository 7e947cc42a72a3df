import { flushPromises, mount } from '@vue/test-utils'
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { defineComponent, h } from 'vue'
import { createMemoryHistory, createRouter } from 'vue-router'
import { beforeEach, describe, expect, it } from 'vitest'
import { keys, session } from '../api'
import { lastId } from '../project'
import { serverThat } from '../testing/server'
import { usePlaces } from './usePlaces'

const NAMES = ['desk', 'list', 'trip', 'receipt', 'projects', 'yards', 'yard', 'rack', 'materials']

async function at(name: string, stage = 'draft', open = true) {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: NAMES.map((one) => ({
      path: `/${one}/:id?`,
      name: one,
      meta: { ofProject: ['desk', 'list', 'trip'].includes(one) },
      component: { template: '<div/>' },
    })),
  })
  await router.push({ name, params: { id: 'p' } })
  const queryClient = new QueryClient({
    defaultOptions: { queries: { staleTime: Infinity, retry: false } },
  })
  const project = {
    id: 'p',
    version: 1,
    name: 'Cold frame',
    parts: [{}, {}],
    days_wanted: '2027-06-10',
  }
  const plan = { id: 'one', project: 'p', version: 1, status: 'done', stage, materials: [] }
  queryClient.setQueryData(keys.project('p'), project)
  queryClient.setQueryData(keys.plan('p', 1), { ...plan, tally: { boards: 5, spare: 1 } })
  const held = { projects: 4, yards: 1, boards: 0, materials: 2 }
  queryClient.setQueryData(keys.workshop, held)
  let places: ReturnType<typeof usePlaces> | undefined
  const holder = defineComponent({
    setup() {
      lastId.value = open ? 'p' : ''
      places = usePlaces()
      return () => h('div')
    },
  })
  mount(holder, { global: { plugins: [router, [VueQueryPlugin, { queryClient }]] } })
  await flushPromises()
  const go = async (to: string) => {
    await router.push({ name: to })
    await flushPromises()
  }
  return { ...places!, go }
}

const told = (places: { label: string; word: string }[]) =>
  places.map(({ label, word }) => `${label}: ${word}`)

beforeEach(() => {
  session.value = { username: 'tove' } as never
  serverThat('no connection')
})

it('the workshop is counted anew on the way to another place', async () => {
  const { ofWorkshop, go } = await at('yards')
  const asked = serverThat({ data: { projects: 4, yards: 1, boards: 3, materials: 2 } })
  await go('rack')
  expect(asked.map((one) => one.path)).toEqual(['/api/workshop'])
  expect(told(ofWorkshop.value)).toContain('Rack: 3 boards')
})

describe('within a project', () => {
  it('its places stand in the order of the work, each with its live word', async () => {
    const { onTape } = await at('list')
    expect(told(onTape.value)).toEqual([
      'Desk: 2 parts',
      'List: 6 to buy',
      'Yard: pick up',
      'Shop: 5 boards',
      'Days: by Jun 10',
    ])
    expect(onTape.value.map((one) => one.here)).toEqual([false, true, false, false, false])
  })

  it.each([
    ['chosen', 'under way'],
    ['bought', 'bought'],
    ['cut', 'all cut'],
  ])('the yard of a plan that is %s says %s', async (stage, word) => {
    const { onTape } = await at('desk', stage)
    expect(onTape.value[2]?.word).toBe(word)
    expect(onTape.value[1]?.word).toBe(stage === 'cut' ? 'all cut' : '6 to buy')
  })

  it('a receipt belongs to the yard', async () => {
    const { onTape } = await at('receipt')
    expect(onTape.value[2]?.here).toBe(true)
  })
})

describe('the way into a project', () => {
  it('leads to its places at once, whatever was open before', async () => {
    const { onTape } = await at('desk', 'draft', false)
    expect(onTape.value.map((one) => one.to)).toEqual([
      '/projects/p',
      '/projects/p/list',
      '/projects/p/yard',
      '/projects/p/shop',
      '/projects/p/days',
    ])
    expect(lastId.value).toBe('p')
  })
})

describe('in the workshop', () => {
  it('its places are counted, with the way back to the project', async () => {
    const { onTape } = await at('yard')
    expect(told(onTape.value)).toEqual([
      '‹ Desk: Cold frame',
      'Projects: 4 to build',
      'Prices: 1 yard',
      'Rack: 0 boards',
      'Sizes: the book',
      'Materials: 2 of your own',
      'Tools: 0 tools',
    ])
    expect(onTape.value.filter((one) => one.here).map((one) => one.label)).toEqual(['Prices'])
  })

  it('there is no way back where no project was open', async () => {
    const { onTape } = await at('rack', 'draft', false)
    expect(onTape.value[0]?.label).toBe('Projects')
  })
})
