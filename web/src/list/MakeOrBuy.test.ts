import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { VSelect } from 'vuetify/components'
import { partOf, projectOf } from '../testing/projects'
import { serverThat } from '../testing/server'
import { shown } from '../testing/shown'
import MakeOrBuy from './MakeOrBuy.vue'

const project = projectOf({
  yard: { id: 'yard', name: 'Bell Yard' } as never,
  parts: [partOf({ id: '1', name: 'rail' }), partOf({ id: '2', mark: 'B', name: 'leg' })],
})

async function weighed(...replies: Parameters<typeof serverThat>) {
  const asked = serverThat(...replies)
  const it = shown(MakeOrBuy, { project })
  it.getComponent(VSelect).vm.$emit('update:modelValue', '2')
  await it.get('.price input').setValue('6.20')
  await it.get('form').trigger('submit')
  await flushPromises()
  return { it, asked }
}

describe('make or buy', () => {
  it('is asked only where there is a yard to buy at', () => {
    expect(shown(MakeOrBuy, { project: projectOf({ parts: project.parts }) }).text()).toBe('')
  })

  it('tells which is cheaper, and whether both purchases are proven', async () => {
    const { it: told, asked } = await weighed({
      data: { told: 'making them saves $2.10', proven: true },
    })
    expect(asked[0]!.path).toBe('/api/projects/project/make-or-buy/2')
    expect(told.get('[role=status]').text()).toContain('making them saves $2.10')
    expect(told.get('[role=status]').text()).toContain('Both purchases are proven least')
  })

  it('does not call proven what is not', async () => {
    const { it: told } = await weighed({ data: { told: 'buy them', proven: false } })
    expect(told.get('[role=status]').text()).toContain('is not proven least')
  })

  it('says what is wrong with a price', async () => {
    const { it: told } = await weighed({ status: 422, data: { detail: 'no price: “cheap”' } })
    expect(told.get('[role=alert]').text()).toBe('no price: “cheap”')
  })

  it('says nothing any more of a price that was changed', async () => {
    const { it: told } = await weighed({ data: { told: 'buy them', proven: true } })
    await told.get('.price input').setValue('6.30')
    expect(told.find('[role=status]').exists()).toBe(false)
  })
})
