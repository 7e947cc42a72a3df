import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { ref } from 'vue'
import type { Project } from '../api'
import { projectOf } from '../testing/projects'
import { serverThat } from '../testing/server'
import { within } from '../testing/within'
import { useEffectTold } from './useEffectTold'

async function changed(wanted: string, ...ready: string[]) {
  const asked = serverThat(
    ...ready.map((one, n) => ({ data: { project: 'project', version: n + 1, ready: one } })),
  )
  const project = ref<Project | undefined>(projectOf({ version: 1, days_wanted: wanted }))
  const plan = ref({ status: 'done', effect: '1 board more' })
  const desk = { project, plan, outdated: ref(false) } as never
  const { it } = within(() => useEffectTold(desk))
  await flushPromises()
  for (let version = 2; version <= ready.length; version++) {
    project.value = projectOf({ version, days_wanted: wanted })
    await flushPromises()
  }
  return { asked, told: it.value }
}

describe('the day on which a project is ready', () => {
  it('is told where a change moves it', async () => {
    expect((await changed('2027-05-09', 'Fri May 7', 'Sat May 8')).told).toBe(
      '1 board more; ready Fri May 7 → Sat May 8',
    )
  })

  it('is not told where it stays', async () => {
    expect((await changed('2027-05-09', 'Fri May 7', 'Sat May 8', 'Sat May 8')).told).toBe(
      '1 board more',
    )
  })

  it('is not asked where none is wanted', async () => {
    expect((await changed('', 'Fri May 7', 'Sat May 8')).asked).toEqual([])
  })
})
