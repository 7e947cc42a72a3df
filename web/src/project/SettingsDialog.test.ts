import { flushPromises } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { VSelect } from 'vuetify/components'
import type { Outcome, ProjectPatch } from '../api'
import { projectOf } from '../testing/projects'
import { serverThat } from '../testing/server'
import { shown } from '../testing/shown'
import SettingsDialog from './SettingsDialog.vue'
import type { ProjectOnDesk } from './useProject'

async function settings(outcome: Outcome<unknown> = { kind: 'done', data: {} }) {
  serverThat({ data: [{ id: 'bell', name: 'Bell Yard' }] })
  const changeSettings = vi.fn((changed: ProjectPatch) => (void changed, Promise.resolve(outcome)))
  const close = vi.fn()
  const desk = { changeSettings } as unknown as ProjectOnDesk
  const wrapper = shown(SettingsDialog, {
    ...{ project: projectOf(), desk, modelValue: false },
    'onUpdate:modelValue': close,
  })
  await wrapper.setProps({ modelValue: true })
  await flushPromises()
  const field = (called: string) => {
    const label = [...document.querySelectorAll('label')].find(
      (one) => one.textContent.trim() === called,
    )!
    return document.getElementById(label.htmlFor) as HTMLInputElement
  }
  const type = async (called: string, text: string) => {
    field(called).value = text
    field(called).dispatchEvent(new Event('input'))
    await flushPromises()
  }
  const choose = async (called: string, value: string) => {
    const choices = wrapper.findAllComponents(VSelect)
    choices.find((one) => one.props('label') === called)!.vm.$emit('update:modelValue', value)
    await flushPromises()
  }
  const save = async () => {
    document.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true }))
    await flushPromises()
  }
  return { changeSettings, close, type, choose, save, text: () => document.body.textContent }
}

describe('the settings of a project', () => {
  it('send what was changed, and nothing else', async () => {
    const { type, save, changeSettings, close } = await settings()
    await type('Kerf', '1/8')
    await save()
    expect(changeSettings).toHaveBeenCalledWith({ kerf: '1/8' })
    expect(close).toHaveBeenCalledWith(false)
  })

  it('send nothing where nothing was changed', async () => {
    const { save, changeSettings, close } = await settings()
    await save()
    expect(changeSettings).not.toHaveBeenCalled()
    expect(close).toHaveBeenCalledWith(false)
  })

  it('leave lengths and their notation to another unit', async () => {
    const { choose, type, save, changeSettings } = await settings()
    await type('Name', 'Garden gate')
    await choose('Bare numbers are', 'mm')
    await save()
    expect(changeSettings).toHaveBeenCalledWith({ name: 'Garden gate', unit: 'mm' })
  })

  it('take a yard', async () => {
    const { choose, save, changeSettings } = await settings()
    await choose('Yard', 'bell')
    await save()
    expect(changeSettings).toHaveBeenCalledWith({ yard: 'bell' })
  })

  it('say at its field what cannot be read, and stay open', async () => {
    const problems = [{ place: 'kerf', message: 'a length is missing' }]
    const { type, save, close, text } = await settings({ kind: 'refused', detail: '', problems })
    await type('Kerf', 'thin')
    await save()
    expect(text()).toContain('a length is missing')
    expect(close).not.toHaveBeenCalled()
  })
})
