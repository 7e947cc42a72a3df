import { flushPromises } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { press } from '../testing/press'
import { shown } from '../testing/shown'
import FormDialog from './FormDialog.vue'

function dialog(changed: boolean) {
  const close = vi.fn()
  const save = vi.fn()
  shown(
    FormDialog,
    {
      modelValue: true,
      title: 'Settings',
      width: 400,
      changed,
      'onUpdate:modelValue': close,
      onSave: save,
    },
    { default: '<input aria-label="Kerf">' },
  )
  return { close, save, text: () => document.body.textContent ?? '' }
}

describe('a form in a dialog', () => {
  it('has a name', () => {
    dialog(false)
    expect(document.querySelector('[role=dialog]')?.getAttribute('aria-label')).toBe('Settings')
  })

  it('closes where nothing was typed', async () => {
    const { close } = dialog(false)
    await press('Cancel')
    expect(close).toHaveBeenCalledWith(false)
  })

  it('asks before what was typed is let go', async () => {
    const { close, text } = dialog(true)
    await press('Cancel')
    expect(close).not.toHaveBeenCalled()
    expect(text()).toContain('What you typed is not saved')
    await press('Go on typing')
    expect(text()).not.toContain('What you typed is not saved')
    await press('Cancel')
    await press('Let it go')
    expect(close).toHaveBeenCalledWith(false)
  })

  it('is saved by its button', async () => {
    const { save } = dialog(true)
    document.querySelector('form')?.dispatchEvent(new Event('submit', { cancelable: true }))
    await flushPromises()
    expect(save).toHaveBeenCalledTimes(1)
  })
})
