import { nextTick } from 'vue'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { connect, fieldInHand, type Tape } from './tape'

let say: (text: string) => void
let letGo: () => void
const tape: Tape = {
  start: (reading) => (say = reading),
  stop: () => (say = () => undefined),
}
const field = (label: string) =>
  document.querySelector<HTMLInputElement>(`[aria-label="${label}"]`) as HTMLInputElement

beforeEach(() => {
  document.body.innerHTML = `
    <input aria-label="Width" data-takes="length">
    <input aria-label="Note">
    <input aria-label="Length" data-takes="length">
    <label for="kerf">Kerf</label><input id="kerf" data-takes="length">`
  letGo = connect(tape)
})
afterEach(() => letGo())

async function reading(text: string) {
  say(text)
  await nextTick()
  await nextTick()
}

describe('a reading of the tape', () => {
  it('goes into the length field in hand, and on to the next', async () => {
    const typed: string[] = []
    field('Width').addEventListener('input', () => typed.push(field('Width').value))
    field('Width').focus()
    await reading('5 7/16in')
    expect(typed).toEqual(['5 7/16in'])
    expect(document.activeElement).toBe(field('Length'))
    await reading('70in')
    expect(field('Length').value).toBe('70in')
    expect(field('Note').value).toBe('')
  })

  it('leaves the last field, so that it is saved', async () => {
    const last = document.querySelector<HTMLInputElement>('#kerf')!
    last.focus()
    await reading('3mm')
    expect(last.value).toBe('3mm')
    expect(document.activeElement).not.toBe(last)
  })

  it('goes nowhere where no length field is in hand', async () => {
    await reading('5in')
    field('Note').focus()
    await reading('6in')
    expect(field('Note').value).toBe('')
    expect(field('Width').value).toBe('')
  })

  it('is not heard any more once it is let go of', async () => {
    field('Width').focus()
    letGo()
    await reading('5in')
    expect(field('Width').value).toBe('')
  })
})

describe('the field in hand', () => {
  it('is told by its name', () => {
    expect(fieldInHand()).toBe('')
    field('Width').focus()
    expect(fieldInHand()).toBe('Width')
    document.querySelector<HTMLInputElement>('#kerf')!.focus()
    expect(fieldInHand()).toBe('Kerf')
    field('Note').focus()
    expect(fieldInHand()).toBe('')
  })
})
