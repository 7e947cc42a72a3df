import { flushPromises } from '@vue/test-utils'
import { defineComponent } from 'vue'
import { expect, test } from 'vitest'
import { VMenu, VSelect } from 'vuetify/components'
import { press } from '../testing/press'
import { shown } from '../testing/shown'
import ChoiceSelect from './ChoiceSelect.vue'
import ChoiceToggle from './ChoiceToggle.vue'
import FilesMenu from './FilesMenu.vue'
import MenuOpener from './MenuOpener.vue'
import NewRow from './NewRow.vue'
import PageTurner from './PageTurner.vue'
import PlainDialog from './PlainDialog.vue'

const CHOICES = [
  { value: 'near', title: 'near edge' },
  { value: 'far', title: 'far edge' },
]
const button = (called: string) =>
  [...document.querySelectorAll('button')].find((one) => one.textContent.trim() === called)!

test('one of a few is pressed, and cannot be given back', async () => {
  const it = shown(ChoiceToggle as never, {
    modelValue: 'near',
    called: 'What is marked',
    choices: CHOICES,
  })
  await press('far edge')
  expect(it.emitted('update:modelValue')).toEqual([['far']])
  await press('far edge')
  expect(it.emitted('update:modelValue')).toHaveLength(1)
})

test('one of many is chosen where it stands, under its name', async () => {
  const it = shown(ChoiceSelect as never, { modelValue: 'near', called: 'Run', choices: CHOICES })
  const select = it.findComponent(VSelect)
  expect(select.props('items')).toEqual(CHOICES)
  expect(it.find('[aria-label="Run"]').exists()).toBe(true)
  select.vm.$emit('update:modelValue', 'far')
  expect(it.emitted('update:modelValue')).toEqual([['far']])
})

test('a dialog has the name it shows, what it says, and what can be done', async () => {
  const slots = { default: 'Gone for good.', acts: '<button>Keep it</button>' }
  shown(PlainDialog, { modelValue: true, title: 'Delete it?' }, slots)
  await flushPromises()
  const dialog = document.querySelector('.v-dialog [role="dialog"], [role="dialog"]')!
  expect(dialog.getAttribute('aria-label')).toBe('Delete it?')
  expect(dialog.textContent).toContain('Gone for good.')
  expect(button('Keep it')).toBeTruthy()
})

test('a menu comes at the first touch, opens at a press and says so', async () => {
  const it = shown(
    defineComponent({
      components: { MenuOpener },
      setup: () => ({ FilesMenu, of: { called: 'Files', files: [{ title: 'Parts, CSV' }] } }),
      template:
        '<MenuOpener v-slot="{ opens }" :menu="FilesMenu" :of="of"><button v-bind="opens">Files</button></MenuOpener>',
    }),
  )
  expect(it.findComponent(VMenu).exists()).toBe(false)
  await it.get('button').trigger('pointerenter')
  expect(it.findComponent(VMenu).props('modelValue')).toBe(false)
  await it.get('button').trigger('click')
  await flushPromises()
  expect(it.get('button').attributes('aria-expanded')).toBe('true')
  expect(document.querySelector('[role="menu"]')?.textContent).toContain('Parts, CSV')
  await it.get('button').trigger('click')
  expect(it.get('button').attributes('aria-expanded')).toBe('false')
})

test('files are taken on the paper that is chosen', async () => {
  localStorage.clear()
  const activator = document.body.appendChild(document.createElement('button'))
  const files = [{ title: 'Cut sheet, PDF', href: (paper: string) => `/cut-sheet.pdf?${paper}` }]
  shown(FilesMenu, { modelValue: true, activator, called: 'Files', files, papers: true })
  await flushPromises()
  const link = () => document.querySelector('a[role="menuitem"]')?.getAttribute('href')
  expect(link()).toBe('/cut-sheet.pdf?letter')
  const a4 = [...document.querySelectorAll<HTMLElement>('[role="menuitemradio"]')].at(-1)!
  expect(a4.getAttribute('aria-checked')).toBe('false')
  a4.click()
  await flushPromises()
  expect(link()).toBe('/cut-sheet.pdf?a4')
  expect(a4.getAttribute('aria-checked')).toBe('true')
})

test('pages turn between the first and the last, and are none where all fits', async () => {
  const none = shown(PageTurner, { modelValue: 1, found: 50, size: 50, what: 'boards' })
  expect(none.find('nav').exists()).toBe(false)
  none.unmount()
  const it = shown(PageTurner, { modelValue: 3, found: 1_120, size: 500, what: 'boards' })
  expect(it.get('[role="status"]').text()).toBe('boards 1001 to 1120 of 1,120')
  expect(button('Next').disabled).toBe(true)
  await press('Before')
  expect(it.emitted('update:modelValue')).toEqual([[2]])
})

test('a row for something new asks in its order, and says what is wrong at the field', async () => {
  const asked = [
    { name: 'stock', label: 'Stock', wide: true },
    { name: 'length', label: 'Length', isLength: true },
    { name: 'per', label: 'Per', choices: ['each', 'ft'] },
  ]
  const it = shown(NewRow, {
    modelValue: { stock: '', length: '', per: 'each' },
    asked,
    at: (name: string) => (name === 'length' ? ['a length is missing'] : []),
    act: 'Add',
  })
  expect(it.findAll('label').map((one) => one.text())).toEqual(
    expect.arrayContaining(['Stock', 'Length', 'Per']),
  )
  expect(it.get('form').attributes('style')).toContain('2fr minmax(0, 1fr) minmax(0, 1fr) auto')
  expect(it.text()).toContain('a length is missing')
  expect(it.find('[data-takes="length"]').exists()).toBe(true)
  await it.get('form').trigger('submit')
  expect(it.emitted('made')).toHaveLength(1)
})
