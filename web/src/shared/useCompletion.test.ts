import { describe, expect, it } from 'vitest'
import { begunName, completions } from './useCompletion'

const NAMES = ['opening', 'over all', 'post', 'slat gap', 'width of A', 'kerf']

describe('what is begun of a name', () => {
  it('is what stands before the caret, after a sign', () => {
    expect(begunName('=opening - 2 * po', 17)).toBe('po')
    expect(begunName('=2 * slat g', 11)).toBe('slat g')
    expect(begunName('=(wid', 5)).toBe('wid')
    expect(begunName('=opening - 2', 4)).toBe('ope')
  })

  it('is nothing where no formula is typed, or a figure', () => {
    expect(begunName('44 ope', 6)).toBe('')
    expect(begunName('=44', 3)).toBe('')
    expect(begunName('44 - ope', 8, true)).toBe('ope')
  })
})

describe('the names offered', () => {
  it('are those that begin so, then those with such a word', () => {
    expect(completions(NAMES, 'o')).toEqual(['opening', 'over all', 'width of A'])
    expect(completions(NAMES, 'gap')).toEqual(['slat gap'])
  })

  it('are none where the name is whole or nothing is begun', () => {
    expect(completions(NAMES, 'post')).toEqual([])
    expect(completions(NAMES, ' ')).toEqual([])
  })
})
