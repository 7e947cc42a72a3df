import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { VSelect } from 'vuetify/components'
import { serverThat } from '../testing/server'
import { shown } from '../testing/shown'
import NewProject from './NewProject.vue'

beforeEach(() => sessionStorage.clear())

/** The form with a name typed, and a new yard asked for where it is bought. */
async function withNewYard(called: string) {
  const form = shown(NewProject)
  await flushPromises()
  await form.find('input').setValue('Barrel stand')
  const boughtAt = form
    .findAllComponents(VSelect)
    .find((one) => one.props('label') === 'Bought at')!
  boughtAt.vm.$emit('update:modelValue', 'new')
  await flushPromises()
  await form.find('[role=group] input').setValue(called)
  return form
}

describe('a project that is bought at a yard made with it', () => {
  it('waits for the yard and takes it', async () => {
    const asked = serverThat(({ method, path, body }) => ({
      data: method === 'GET' ? [] : path === '/api/yards' ? { ...body, id: 'mill-lane' } : body,
    }))
    const form = await withNewYard('Mill Lane')
    await form.find('form').trigger('submit')
    await flushPromises()
    const posts = asked.filter((one) => one.method === 'POST')
    expect(posts.map((one) => one.path)).toEqual(['/api/yards', '/api/projects'])
    expect(posts[1]!.body).toMatchObject({ name: 'Barrel stand', yard: 'mill-lane' })
  })

  it('makes it once, however often it is asked', async () => {
    const asked = serverThat(({ method, body }) => ({ data: method === 'GET' ? [] : body }))
    const form = await withNewYard('Mill Lane')
    void form.find('[role=group] button').trigger('click')
    await form.find('form').trigger('submit')
    await flushPromises()
    const posts = asked.filter((one) => one.method === 'POST')
    expect(posts.map((one) => one.path)).toEqual(['/api/yards', '/api/projects'])
  })

  it('is not started where the yard could not be made', async () => {
    const asked = serverThat(({ method }) =>
      method === 'GET'
        ? { data: [] }
        : { status: 422, data: { detail: '', problems: [{ place: 'name', message: 'blank' }] } },
    )
    const form = await withNewYard('')
    await form.find('form').trigger('submit')
    await flushPromises()
    expect(asked.filter((one) => one.method === 'POST').map((one) => one.path)).toEqual([
      '/api/yards',
    ])
    expect(form.find('[role=group]').text()).toContain('blank')
  })
})
