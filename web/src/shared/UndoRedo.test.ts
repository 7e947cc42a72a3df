import { flushPromises } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { shown } from '../testing/shown'
import UndoRedo from './UndoRedo.vue'

async function steps(undo: string | null = 'length 9 → 8', redo: string | null = null) {
  const step = vi.fn(async () => undefined)
  shown(UndoRedo, { thing: { undo, redo }, step })
  await flushPromises()
  return step
}

function press(target: Element, init: KeyboardEventInit = {}) {
  target.dispatchEvent(
    new KeyboardEvent('keydown', {
      key: 'z',
      ctrlKey: true,
      bubbles: true,
      cancelable: true,
      ...init,
    }),
  )
}

function put(html: string): Element {
  document.body.insertAdjacentHTML('beforeend', html)
  return document.body.lastElementChild!
}

describe('undo and redo', () => {
  it('say what they do, and cannot be pressed where there is nothing', async () => {
    await steps()
    const [undo, redo] = [...document.querySelectorAll<HTMLButtonElement>('#header-acts button')]
    expect(undo?.title).toBe('take back: length 9 → 8')
    expect(undo?.disabled).toBe(false)
    expect(redo?.disabled).toBe(true)
    expect(redo?.title).toBe('nothing to redo')
  })

  it('are one key press away', async () => {
    const step = await steps()
    press(document.body)
    press(document.body, { shiftKey: true, key: 'Z' })
    press(document.body, { ctrlKey: false, metaKey: true })
    expect(step.mock.calls).toEqual([['undo'], ['redo'], ['undo']])
  })

  it('leave a field alone in which something is typed and not saved', async () => {
    const step = await steps()
    press(put('<input data-dirty="true">'))
    const area = put('<textarea></textarea>') as HTMLTextAreaElement
    area.value = '2 rails'
    press(area)
    expect(step).not.toHaveBeenCalled()
    press(put('<input>'))
    area.value = ''
    press(area)
    expect(step).toHaveBeenCalledTimes(2)
  })

  it('leave a dialog over the page alone', async () => {
    const step = await steps()
    const dialog = put('<div class="v-overlay"><input></div>')
    press(dialog.querySelector('input')!)
    put('<div class="v-overlay--active"></div>')
    press(document.body)
    expect(step).not.toHaveBeenCalled()
  })
})
