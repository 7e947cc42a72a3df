import { describe, expect, it } from 'vitest'
import { shown } from '../testing/shown'
import SlantSketch from './SlantSketch.vue'

const square = { ends: [0, 0], bevels: [false, false], edges: [0, 0] }

function corners(slant: object | null, of = 'ends') {
  const points = shown(SlantSketch, { slant, of }).get('polygon').attributes('points') ?? ''
  return points.split(' ').map((point) => Math.round(Number(point.split(',')[0])))
}

describe('a picture of ends', () => {
  it('is square where nothing leans', () => {
    expect(corners(null)).toEqual([1, 67, 67, 1])
    expect(corners(square)).toEqual([1, 67, 67, 1])
  })

  it('leans left and right as the angles say', () => {
    expect(corners({ ...square, ends: [45, -45] })).toEqual([1, 49, 67, 19])
    expect(corners({ ...square, ends: [-45, 45] })).toEqual([19, 67, 49, 1])
  })

  it('stays in its frame', () => {
    expect(corners({ ...square, ends: [80, -80] })).toEqual([1, 43, 67, 25])
  })

  it('says from where it is seen', () => {
    const label = (slant: object, of: string) =>
      shown(SlantSketch, { slant, of }).get('svg').attributes('aria-label')
    expect(label(square, 'ends')).toBe('ends, seen from its face')
    expect(label({ ...square, bevels: [true, false] }, 'ends')).toBe('ends, seen from an edge')
    expect(label(square, 'edges')).toBe('edges, seen on its end')
  })
})
