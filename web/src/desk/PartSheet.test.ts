import { beforeEach, describe, expect, it, vi } from 'vitest'
import { computed, nextTick } from 'vue'
import type { Plan, Project } from '../api'
import { useLighting } from '../drawing'
import type { ProjectOnDesk } from '../project'
import { FORMULA_NAMES } from '../shared'
import { inches, partOf, planOf, projectOf } from '../testing/projects'
import { shown } from '../testing/shown'
import PartSheet from './PartSheet.vue'

beforeEach(() => sessionStorage.clear())

function sheet(project: Project, plan?: Plan) {
  const changePart = vi.fn(() => Promise.resolve({ kind: 'done', data: {} }))
  const lighting = useLighting(`${project.id} ${Math.random()}`)
  const desk = { changePart } as unknown as ProjectOnDesk
  return { changePart, lighting, it: shown(PartSheet, { project, plan, desk, lighting }) }
}

const rows = (of: ReturnType<typeof sheet>) =>
  of.it.findAll('[role=row]').map((row) => row.attributes('data-mark') ?? row.text())

describe('the part sheet', () => {
  it('says what to do where there is no part', () => {
    expect(sheet(projectOf()).it.text()).toContain('No parts yet')
  })

  it('has its parts in groups, each where it first appears', () => {
    const parts = [
      partOf({ id: '1', mark: 'A', group: 'frame' }),
      partOf({ id: '2', mark: 'B', group: 'top' }),
      partOf({ id: '3', mark: 'C', group: 'frame' }),
    ]
    expect(rows(sheet(projectOf({ parts }))).slice(1)).toEqual(['frame', 'A', 'C', 'top', 'B'])
  })

  it('says which part is not planned yet, and why', () => {
    const parts = [partOf({ id: '1' }), partOf({ id: '2', mark: 'B', name: 'panel' })]
    const plan = planOf({ later: [{ part: '2', reason: 'sheets come later' }] } as never)
    const told = sheet(projectOf({ parts }), plan).it
    expect(told.get('[data-part="2"]').text()).toContain('not planned yet: sheets come later')
    expect(told.get('[data-part="1"]').text()).not.toContain('not planned yet')
  })

  it('says how many are cut, and how many pieces all builds come to', () => {
    const parts = [partOf({ id: '1', quantity: '4', pieces: 12 })]
    const row = sheet(projectOf({ parts }), planOf({}, { cut: { '1': 3 } })).it.get('[data-part]')
    expect(row.text()).toContain('= 12')
    expect(row.text()).toContain('3 cut')
  })

  it('marks a length that follows, and shows its formula where it is edited', async () => {
    const follows = [{ field: 'length', value: '40', exact: false }]
    const parts = [
      partOf({ id: '1', length: '=rail / 3', follows }),
      partOf({ id: '2', name: 'leg' }),
    ]
    const { it: told } = sheet(projectOf({ parts }))
    expect(told.get('[data-part="1"]').text()).toContain('=≈40″')
    expect(told.get('[data-part="2"]').text()).not.toContain('=')
    const length = told.get<HTMLInputElement>('[aria-label="Length of rail"]')
    expect(length.element.value).toBe('=rail / 3')
  })

  it('says at the part what cannot be worked out, and what is held or was measured', () => {
    const fault = 'length: comes out -2: rail, where rail = -2'
    const parts = [
      partOf({ id: '1', fault, length_shown: inches(0) }),
      partOf({ id: '2', mark: 'B', name: 'leg', is_held: true }),
      partOf({ id: '3', mark: 'C', name: 'sill', computed: inches(41) }),
    ]
    const told = sheet(projectOf({ parts })).it
    expect(told.get('[data-part="1"]').text()).toContain(fault)
    expect(told.get('[data-part="1"]').text()).toContain('?')
    expect(told.get('[data-part="2"]').text()).toContain('bought now, cut after measuring')
    expect(told.get('[data-part="3"]').text()).toContain('measured; else 41″')
  })

  it('offers names while a formula is typed; Tab takes the one that is lit', async () => {
    const parts = [partOf({ id: '1' })]
    const project = projectOf({ parts })
    const lighting = useLighting('names')
    const changePart = vi.fn(() => Promise.resolve({ kind: 'done', data: {} }))
    const desk = { changePart } as unknown as ProjectOnDesk
    const told = shown(PartSheet, { project, plan: undefined, desk, lighting }, {}, [
      [FORMULA_NAMES, computed(() => ['opening', 'post'])],
    ])
    const length = told.get<HTMLInputElement>('[aria-label="Length of rail"]')
    await length.setValue('=72 - op')
    await nextTick()
    expect(told.get('[role=listbox]').text()).toContain('opening')
    await length.trigger('keydown', { key: 'Tab' })
    expect(length.element.value).toBe('=72 - opening')
    expect(told.find('[role=listbox]').exists()).toBe(false)
    await length.setValue('=72 - op')
    await nextTick()
    await length.trigger('keydown', { key: 'Enter' })
    expect(told.find('[role=listbox]').exists()).toBe(false)
  })

  it('sends one field of one part', async () => {
    const { it: told, changePart } = sheet(projectOf({ parts: [partOf({ id: '1' })] }))
    const length = told.get<HTMLInputElement>('[aria-label="Length of rail"]')
    await length.setValue('41')
    await length.trigger('keydown', { key: 'Enter' })
    expect(changePart).toHaveBeenCalledWith('1', 'length', '41')
  })

  it('has what was typed and not saved again after a reload', async () => {
    const project = projectOf({ parts: [partOf({ id: '1' })] })
    const before = sheet(project)
    await before.it.get('[aria-label="Length of rail"]').setValue('four feet or so')
    before.it.unmount()
    const length = sheet(project).it.get<HTMLInputElement>('[aria-label="Length of rail"]')
    expect(length.element.value).toBe('four feet or so')
  })

  it('lights the part under the pointer, else the one in work', async () => {
    const parts = [partOf({ id: '1' }), partOf({ id: '2', mark: 'B', name: 'leg' })]
    const { it: told, lighting } = sheet(projectOf({ parts }))
    await told.get('[aria-label="Count of rail"]').trigger('focusin')
    expect(lighting.lit.value).toBe('1')
    await told.get('[data-part="2"]').trigger('pointerenter')
    expect(lighting.lit.value).toBe('2')
    expect(told.get('[data-part="2"]').classes()).toContain('lit')
    await told.get('[data-part="2"]').trigger('pointerleave')
    expect(lighting.lit.value).toBe('1')
  })

  it('draws all of a home list, and of a long one what is in view', () => {
    const many = (count: number) =>
      Array.from({ length: count }, (_, n) => partOf({ id: `p${n}`, mark: `M${n}` }))
    expect(sheet(projectOf({ parts: many(120) })).it.findAll('[data-part]')).toHaveLength(120)
    const long = sheet(projectOf({ parts: many(2000) })).it
    expect(long.findAll('[data-part]').length).toBeLessThan(200)
  })
})
