import { describe, expect, it } from 'vitest'
import { counted } from './counted'
import { day, dayAndTime } from './dates'

describe('so many of something', () => {
  it.each([
    [0, '0 boards'],
    [1, '1 board'],
    [2, '2 boards'],
    [1200, '1,200 boards'],
  ])('%i', (count, words) => expect(counted(count, 'board')).toBe(words))

  it('has a plural of its own where it needs one', () => {
    expect(counted(2, 'inch', 'inches')).toBe('2 inches')
  })
})

describe('a day', () => {
  it('is told in one way, and is the same day everywhere', () => {
    expect(day('2026-11-02')).toBe('Nov 2, 2026')
    expect(day('2026-01-01')).toBe('Jan 1, 2026')
  })

  it('of a moment is the day of it here', () => {
    const noon = new Date(2026, 10, 2, 12).toISOString()
    expect(day(noon)).toBe('Nov 2, 2026')
    expect(dayAndTime(noon)).toMatch(/^Nov 2, 2026, 12:00/)
  })
})
