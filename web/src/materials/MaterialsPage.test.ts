import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { press } from '../testing/press'
import { sectionOf } from '../testing/projects'
import { serverThat } from '../testing/server'
import { shown } from '../testing/shown'
import { materialOf, materialsOf } from '../testing/workshop'
import MaterialsPage from './MaterialsPage.vue'

beforeEach(() => {
  sessionStorage.clear()
  localStorage.clear()
})

async function page(...replies: Parameters<typeof serverThat>) {
  const asked = serverThat(...replies)
  const it = shown(MaterialsPage)
  await flushPromises()
  return { it, asked, words: () => it.text().replace(/\s+/g, ' ') }
}

describe('the materials', () => {
  it('of the book stand under those of ones own', async () => {
    const { words } = await page({ data: materialsOf([materialOf()]) })
    expect(words()).toMatch(/Barn beam.*western red cedar.*its dust irritates/)
  })

  it('of ones own have a diameter where they are round', async () => {
    const section = { ...sectionOf(1, 1), round: true }
    const dowel = materialOf({ id: 'dowel', name: 'Dowel', form: 'round', section })
    const { it: told } = await page({ data: materialsOf([dowel]) })
    expect(told.find('[aria-label="Diameter of Dowel"]').exists()).toBe(true)
    expect(told.find('[aria-label="Width of Dowel"]').exists()).toBe(false)
  })

  it('ask before a size changes parts', async () => {
    const effect = { project: 'Boardwalk', mark: 'A', called: 'post', pieces: 4, why: 'too thin' }
    const { it: told, asked } = await page(
      { data: materialsOf([materialOf()]) },
      { data: [{ ...effect, before: null, after: null }] },
      { data: materialsOf([materialOf({ width: '8' })], { version: 2 }) },
    )
    const cell = told.get('[aria-label="Width of Barn beam"]')
    await cell.setValue('8')
    await cell.trigger('keydown', { key: 'Enter' })
    await flushPromises()
    expect(document.body.textContent).toContain('too thin')
    await press('Apply the size')
    expect(asked[2]).toMatchObject({ method: 'PUT', body: { width: '8', version: 1 } })
  })

  it('take a caution at once', async () => {
    const { it: told, asked } = await page(
      { data: materialsOf([materialOf()]) },
      {
        data: materialsOf([materialOf({ caution: 'nails inside' })], { version: 2 }),
      },
    )
    const cell = told.get('[aria-label="Caution of Barn beam"]')
    await cell.setValue('nails inside')
    await cell.trigger('keydown', { key: 'Enter' })
    await flushPromises()
    expect(asked[1]).toMatchObject({ method: 'PUT', body: { caution: 'nails inside' } })
  })

  it('are put away', async () => {
    const { asked, words } = await page(
      { data: materialsOf([materialOf()]) },
      { data: materialsOf([]) },
    )
    await press('Put away')
    expect(asked[1]?.path).toContain('/api/materials')
    expect(words()).toContain('None yet.')
  })

  it('are made from a form that keeps what cannot be read', async () => {
    const problems = [{ place: 'thickness', message: 'a thickness is missing' }]
    const {
      it: told,
      asked,
      words,
    } = await page(
      { data: materialsOf([]) },
      { status: 422, data: { detail: '', problems } },
      { data: materialsOf([materialOf()], { version: 2 }) },
    )
    const name = told.get<HTMLInputElement>('form.new input')
    await name.setValue('Barn beam')
    await told.get('form.new').trigger('submit')
    await flushPromises()
    expect(words()).toContain('a thickness is missing')
    expect(name.element.value).toBe('Barn beam')
    await told.get('form.new').trigger('submit')
    await flushPromises()
    expect(asked[2]?.body).toMatchObject({ name: 'Barn beam', form: 'board' })
    expect(name.element.value).toBe('')
  })
})
