import { describe, expect, it } from 'vitest'
import type { Part, Project, ProjectChange } from '../api'
import { afterChange } from './useProject'

const part = (id: string, position: number, name = id) => ({ id, position, name }) as Part
const project = (version: number, ...parts: Part[]) =>
  ({ version, name: 'Gate', parts }) as unknown as Project
const change = (said: Partial<ProjectChange>) =>
  ({
    version: 4,
    seen: 3,
    whole: false,
    gone: [],
    parts: [],
    name: 'Gate',
    ...said,
  }) as ProjectChange
const ids = (now: Project | undefined) => now?.parts.map((one) => one.id)

describe('a project after a change of it', () => {
  const known = project(3, part('a', 1), part('b', 2), part('c', 3))

  it('has the parts that were changed, in their places', () => {
    const now = afterChange(known, change({ parts: [part('b', 2, 'new')] }))
    expect(now?.version).toBe(4)
    expect(ids(now)).toEqual(['a', 'b', 'c'])
    expect(now?.parts[1]?.name).toBe('new')
  })

  it('has what was added where it belongs, and not what was removed', () => {
    const now = afterChange(known, change({ parts: [part('d', 1.5)], gone: ['c'] }))
    expect(ids(now)).toEqual(['a', 'd', 'b'])
  })

  it('is told whole where all of it changed', () => {
    const now = afterChange(known, change({ whole: true, parts: [part('z', 1)] }))
    expect(ids(now)).toEqual(['z'])
  })

  it('is told whole also to whoever knew nothing or an older one', () => {
    const whole = change({ whole: true, parts: [part('z', 1)] })
    expect(ids(afterChange(undefined, whole))).toEqual(['z'])
    expect(ids(afterChange(project(1), whole))).toEqual(['z'])
  })

  it('is not put together from a change of another state', () => {
    expect(afterChange(project(2, part('a', 1)), change({}))).toBeUndefined()
    expect(afterChange(undefined, change({}))).toBeUndefined()
  })

  it('leaves what was known as it was', () => {
    afterChange(known, change({ parts: [part('b', 2, 'new')], gone: ['a'] }))
    expect(ids(known)).toEqual(['a', 'b', 'c'])
    expect(known.parts[1]?.name).toBe('b')
  })
})
