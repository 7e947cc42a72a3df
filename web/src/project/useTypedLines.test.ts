import { ref } from 'vue'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Outcome, Project } from '../api'
import { within } from '../testing/within'
import { type UnreadLine, useTypedLines } from './useTypedLines'

const unread = ref<UnreadLine[]>([])

function lines(outcome: Partial<Outcome<Project>>) {
  const project = ref({ id: 'p', joints: '16 B to A' } as Project)
  const changeSettings = vi.fn(async (typed: Partial<Project>) => {
    if (outcome.kind === 'done') project.value = { ...project.value, ...typed }
    return outcome as Outcome<Project>
  })
  const { it } = within(() =>
    useTypedLines(() => project.value, { changeSettings } as never, 'joints', unread),
  )
  return { ...it, changeSettings }
}

beforeEach(() => {
  localStorage.clear()
  unread.value = []
})

describe('lines of a project', () => {
  it('are saved when they are left, and only where they changed', async () => {
    const { bind, changeSettings } = lines({ kind: 'done' })
    await bind('joints').onBlur()
    expect(changeSettings).not.toHaveBeenCalled()
    bind('joints')['onUpdate:modelValue']('4 B to A')
    expect(bind('joints').modelValue).toBe('4 B to A')
    await bind('joints').onBlur()
    expect(changeSettings).toHaveBeenCalledExactlyOnceWith({ joints: '4 B to A' })
    expect(bind('joints').modelValue).toBe('4 B to A')
    expect(localStorage.getItem('grain-tally:drafts:p:lines')).not.toContain('4 B to A')
  })

  it('are kept as they were typed where they are refused, each with its reason', async () => {
    unread.value = [{ place: 'joints', message: 'line 1: there is no part B' }]
    const problems = [{ place: 'joints', message: 'line 1: how many?' }]
    const { bind } = lines({ kind: 'refused', detail: '', problems } as never)
    expect(bind('joints').errorMessages).toEqual(['line 1: there is no part B'])
    bind('joints')['onUpdate:modelValue']('B to A')
    await bind('joints').onBlur()
    expect(bind('joints').modelValue).toBe('B to A')
    expect(bind('joints').errorMessages).toEqual(['line 1: how many?'])
    expect(bind('finishes').errorMessages).toEqual([])
  })

  it('are saved by Ctrl and Enter too', () => {
    const { bind, changeSettings } = lines({ kind: 'done' })
    bind('rules')['onUpdate:modelValue']('1 dowel a joint')
    bind('rules').onKeydown(new KeyboardEvent('keydown', { key: 'Enter' }))
    expect(changeSettings).not.toHaveBeenCalled()
    bind('rules').onKeydown(new KeyboardEvent('keydown', { key: 'Enter', ctrlKey: true }))
    expect(changeSettings).toHaveBeenCalledExactlyOnceWith({ rules: '1 dowel a joint' })
  })
})
