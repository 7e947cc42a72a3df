import { describe, expect, it } from 'vitest'
import type { Layout, Part } from '../api'
import { inches, layoutOf, partOf } from '../testing/projects'
import { shown } from '../testing/shown'
import BoardDrawing from './BoardDrawing.vue'
import { TICKS_PER_INCH } from './ticks'

const PIXELS_PER_INCH = 4

/** A board of a length with pieces of a part one after the other, drawn at four pixels an inch. */
function board(long: number, pieces: number[], mark = 'A') {
  let at = 0
  const parts = pieces.map((piece) => {
    const [start, end] = [at * TICKS_PER_INCH, (at + piece) * TICKS_PER_INCH]
    at += piece
    const corners = [start, end, end, start]
    return {
      ...{ part: '1', y: null, bevels: [], ends: '', long_points: [] },
      start,
      end,
      corners,
      length: inches(piece),
    }
  })
  const said = { length: inches(long), parts, cuts: [], flaws: [], rips: [], section: null }
  const layout = layoutOf({ ...said, first: 1, named_length: `${long} in` } as unknown as Layout)
  const known = new Map<string, Part>([['1', partOf({ id: '1', mark })]])
  return shown(BoardDrawing, {
    ...{ layout, kind: 'plain', height: 24, parts: known, lit: undefined },
    scale: PIXELS_PER_INCH / TICKS_PER_INCH,
  })
}

const texts = (of: ReturnType<typeof board>) =>
  of.findAll('text').map((one) => one.text().replace(/\s+/g, ''))

describe('a board that is drawn', () => {
  it('has each piece as long as it is', () => {
    const corners = board(96, [20, 40])
      .findAll('polygon:first-of-type')
      .map((one) => one.attributes('points'))
    expect(corners.map((one) => one!.split(' ').slice(0, 2))).toEqual([
      ['0,2', '80,2'],
      ['80,2', '240,2'],
    ])
  })

  it('writes mark and length where both fit, and the mark alone where only it does', () => {
    expect(texts(board(96, [20, 5]))).toEqual(['A', '20″', 'A'])
  })

  it('writes no mark over the edge of its piece', () => {
    expect(texts(board(96, [5], 'AFQ'))).toEqual([])
    expect(texts(board(96, [10], 'AFQ'))).toEqual(['AFQ'])
  })

  it('is told in words to those who do not see it', () => {
    expect(board(96, [20, 40]).attributes('aria-label')).toBe('Board 1, 96 in: rail 20″, rail 40″')
  })

  it('lights the pieces of the part in work', async () => {
    const drawn = board(96, [20, 40])
    await drawn.setProps({ lit: '1' })
    expect(drawn.findAll('.piece.lit')).toHaveLength(2)
    await drawn.get('.piece').trigger('click')
    expect(drawn.emitted('select')).toEqual([['1']])
  })
})
