import { describe, expect, it } from 'vitest'
import type { Outcome } from './client'
import { useFaults } from './faults'

const refused = (...problems: { place: string; message: string }[]): Outcome<string> => ({
  kind: 'refused',
  detail: 'all of it is wrong',
  problems,
})

describe('the faults of a form', () => {
  it('stand at their fields', () => {
    const faults = useFaults('name')
    const length = { place: 'length', message: 'no length' }
    expect(faults.settle(refused(length, { place: 'kerf', message: 'too wide' }))).toBe(false)
    expect(faults.at('length')).toEqual(['no length'])
    expect(faults.at('kerf')).toEqual(['too wide'])
    expect(faults.at('name')).toEqual([])
  })

  it.each<[string, Outcome<string>, string]>([
    [
      'that belongs to no field',
      refused({ place: '', message: 'a row is broken' }),
      'a row is broken',
    ],
    ['without words for a field', refused(), 'all of it is wrong'],
    ['of a lost connection', { kind: 'offline' }, 'the server does not answer: try again'],
    [
      'of a change elsewhere',
      { kind: 'conflict', detail: 'it was changed elsewhere', current: '' },
      'it was changed elsewhere: save again to set yours',
    ],
  ])('%s stands at the usual one', (_, outcome, words) => {
    const faults = useFaults('name')
    expect(faults.settle(outcome)).toBe(false)
    expect(faults.at('name')).toEqual([words])
  })

  it('are gone once it is done', () => {
    const faults = useFaults('name')
    faults.settle(refused({ place: 'name', message: 'no name' }))
    expect(faults.settle({ kind: 'done', data: 'x' })).toBe(true)
    expect(faults.problems.value).toEqual([])
  })

  it('are gone when the form is opened again', () => {
    const faults = useFaults('name')
    faults.settle(refused({ place: 'name', message: 'no name' }))
    faults.clear()
    expect(faults.at('name')).toEqual([])
  })
})
