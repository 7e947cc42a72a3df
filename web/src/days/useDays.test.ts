import { flushPromises } from '@vue/test-utils'
import { expect, test, vi } from 'vitest'
import { defineComponent, h } from 'vue'
import type { Project } from '../api'
import type { ProjectOnDesk } from '../project'
import { daysOf, step } from '../testing/days'
import { serverThat } from '../testing/server'
import { shown } from '../testing/shown'
import { useDays, type ProjectDays } from './useDays'

function held(steps: string, replies = [{ data: daysOf([step('glue')]) }]) {
  const asked = serverThat(...replies)
  const changeSettings = vi.fn().mockResolvedValue({ kind: 'done' })
  const project = { id: 'p', version: 1, steps } as Project
  let found: ProjectDays | undefined
  shown(
    defineComponent({
      setup() {
        found = useDays({ changeSettings } as unknown as ProjectOnDesk, () => project)
        return () => h('div')
      },
    }),
  )
  return { asked, changeSettings, days: found as ProjectDays }
}

test('days are asked for at once and worked out, in the zone of the screen', async () => {
  const { asked, days } = held('')
  await flushPromises()
  expect(asked.map((one) => one.path)).toEqual(['/api/projects/p/days', '/api/projects/p/days'])
  expect(days.days.value?.steps[0]?.name).toBe('glue')
})

test('a line of a step takes the place of the one before, or goes', () => {
  const { changeSettings, days } = held('a, 1 h\n\noil, 2 h')
  void days.say(step('oil', { line: 'oil, 2 h' }), ' oil, 3 h ')
  expect(changeSettings).toHaveBeenLastCalledWith({ steps: 'a, 1 h\noil, 3 h' })
  void days.say(step('oil', { line: 'oil, 2 h' }), '')
  expect(changeSettings).toHaveBeenLastCalledWith({ steps: 'a, 1 h' })
  void days.say(step('glue'), 'glue, 20 min')
  expect(changeSettings).toHaveBeenLastCalledWith({ steps: 'a, 1 h\noil, 2 h\nglue, 20 min' })
})

test('what cannot be told is said, and is not taken for done', async () => {
  const refused = daysOf([step('glue')], { refused: [{ place: '1', message: 'still to come' }] })
  const { days } = held('', [{ data: refused }])
  await flushPromises()
  expect(await days.tell('done', 'glue')).toBe(false)
  expect(days.refused.value).toBe('still to come')
  vi.stubGlobal('fetch', () => Promise.reject(new TypeError('lost')))
  expect(await days.tell('done', 'glue')).toBe(false)
  expect(days.refused.value).toContain('no connection')
})
