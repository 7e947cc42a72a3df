import { flushPromises } from '@vue/test-utils'
import { nextTick, ref } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Plan } from '../api'
import { serverThat } from '../testing/server'
import { within } from '../testing/within'
import { usePlan } from './usePlan'

const layouts = [{}]
const planOf = (id: string, version: number, status: string, seconds = 1) =>
  ({ id, project: 'p', version, status, seconds, materials: [{ layouts }] }) as unknown as Plan

function plan(version = 1) {
  const project = ref({ id: 'p', version })
  return { project, ...within(() => usePlan(project)).it }
}

async function later(ms: number) {
  await vi.advanceTimersByTimeAsync(ms)
  await flushPromises()
}

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

describe('the plan of a project', () => {
  it('is asked for once, and not again where it is done', async () => {
    const asked = serverThat({ data: planOf('one', 1, 'done') })
    const { plan: now, outdated } = plan()
    await later(0)
    expect(now.value?.id).toBe('one')
    expect(outdated.value).toBe(false)
    await later(60_000)
    expect(asked.map((one) => `${one.method} ${one.path}`)).toEqual(['POST /api/projects/p/plans'])
  })

  it('is looked at again while it is made, at no cost where nothing has changed', async () => {
    const asked = serverThat(
      { data: planOf('two', 1, 'running') },
      { data: planOf('two', 1, 'running', 2), headers: { ETag: '"a"' } },
      { status: 304 },
      { data: planOf('two', 1, 'done', 3), headers: { ETag: '"b"' } },
    )
    const { plan: now } = plan()
    await later(0)
    await later(500)
    expect(now.value?.seconds).toBe(2)
    await later(500)
    expect(now.value?.status).toBe('running')
    await later(500)
    expect(now.value?.status).toBe('done')
    const count = asked.length
    await later(60_000)
    expect(asked.length).toBe(count)
    expect(asked.slice(1).every((one) => one.method === 'GET')).toBe(true)
    expect(asked[2]?.headers.get('If-None-Match')).toBe('"a"')
  })

  it('is the one before it until that of a change has come, and says so', async () => {
    serverThat({ data: planOf('three', 1, 'done') }, { data: planOf('four', 2, 'done') })
    const { plan: now, outdated, project } = plan()
    await later(0)
    project.value = { id: 'p', version: 2 }
    await nextTick()
    expect(now.value?.id).toBe('three')
    expect(outdated.value).toBe(true)
    await later(0)
    expect(now.value?.id).toBe('four')
    expect(outdated.value).toBe(false)
  })

  it('of another project is not shown meanwhile', async () => {
    serverThat({ data: planOf('five', 1, 'done') }, 'no connection')
    const { plan: now, project } = plan()
    await later(0)
    project.value = { id: 'q', version: 1 }
    await flushPromises()
    expect(now.value).toBeUndefined()
  })

  it('that cannot be made is told as that', async () => {
    serverThat({ status: 422, data: { detail: 'no' } })
    const { plan: now, isError } = plan()
    await later(0)
    expect(now.value).toBeUndefined()
    expect(isError.value).toBe(true)
  })

  it('is waited for where somebody needs it settled', async () => {
    serverThat({ data: planOf('six', 1, 'done') })
    const { settled } = plan()
    const waited = settled()
    await later(0)
    expect((await waited).id).toBe('six')
  })

  it('that is gone is asked for anew', async () => {
    const asked = serverThat(
      { data: planOf('seven', 1, 'running') },
      { status: 410, data: { detail: 'the project has changed' } },
      { data: planOf('eight', 1, 'done') },
    )
    const { plan: now } = plan()
    await later(0)
    await later(500)
    expect(asked.map((one) => one.method)).toEqual(['POST', 'GET', 'POST'])
    expect(now.value?.id).toBe('eight')
  })
})
