import { describe, expect, it } from 'vitest'
import { partOf, planOf, projectOf } from '../testing/projects'
import { shown } from '../testing/shown'
import NotOnTheList from './NotOnTheList.vue'

const project = projectOf({
  parts: [partOf({ id: '1', name: 'rail' }), partOf({ id: '2', name: 'panel', quantity: '3' })],
})

const said = (of: object) =>
  shown(NotOnTheList, { project, plan: planOf(of as never) })
    .findAll('li')
    .map((one) => one.text().replace(/\s+/g, ' '))

describe('what is not on the list', () => {
  it('is nothing where all is bought', () => {
    expect(said({})).toEqual([])
  })

  it('is each part that no board can hold, so many of it, and why', () => {
    const unplaced = [{ part: '1', quantity: 2, reason: 'longer than any board' }]
    expect(said({ unplaced })).toEqual(['2 × rail, 2x4: longer than any board'])
  })

  it('is each part that is not planned yet, all pieces of it', () => {
    const later = [{ part: '2', reason: 'has to be milled' }]
    expect(said({ later })).toEqual(['3 × panel, 2x4: has to be milled, not planned yet'])
  })
})
