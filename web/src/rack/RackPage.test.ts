import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { serverThat } from '../testing/server'
import { press } from '../testing/press'
import { shown } from '../testing/shown'
import { boardOf, rackOf } from '../testing/workshop'
import RackPage from './RackPage.vue'

beforeEach(() => {
  sessionStorage.clear()
  localStorage.clear()
})

async function page(...replies: Parameters<typeof serverThat>) {
  const asked = serverThat(...replies)
  const it = shown(RackPage)
  await flushPromises()
  return { it, asked, words: () => it.text().replace(/\s+/g, ' ') }
}

async function type(it: Awaited<ReturnType<typeof page>>['it'], label: string, text: string) {
  const cell = it.get(`[aria-label="${label}"]`)
  await cell.setValue(text)
  await cell.trigger('keydown', { key: 'Enter' })
  await flushPromises()
}

describe('the rack', () => {
  it('shows its boards with the size each really has', async () => {
    const { words } = await page({ data: rackOf([boardOf()]) })
    expect(words()).toContain('1 board on hand')
    expect(words()).toContain('the standard')
    expect(words()).toContain('3″')
  })

  it('says what is to be done where it is empty, and where nothing is found', async () => {
    const empty = await page({ data: rackOf([]) })
    expect(empty.words()).toContain('Nothing on the rack yet')
    const none = await page({ data: rackOf([], { total: 3 }) })
    expect(none.words()).toContain('No board like that.')
  })

  it('tells a board that is left alone, and one without a straight strip', async () => {
    const bad = boardOf({ left_alone: 'twisted: left alone', straight_width: null })
    const { words } = await page({ data: rackOf([bad]) })
    expect(words()).toContain('twisted: left alone')
    expect(words()).toContain('none')
  })

  it('changes a place at once, from the version that was seen', async () => {
    const after = rackOf([boardOf({ place: 'shed' })], { version: 5 })
    const { it: told, asked } = await page({ data: rackOf([boardOf()]) }, { data: after })
    await type(told, 'Place of board 7', 'shed')
    expect(asked[1]).toMatchObject({
      method: 'PUT',
      path: '/api/rack/boards/board',
      body: { place: 'shed', version: 4 },
    })
    expect(told.get<HTMLInputElement>('[aria-label="Place of board 7"]').element.value).toBe('shed')
  })

  it('lists the parts that a size changes before it is applied', async () => {
    const effect = {
      ...{ project: 'Boardwalk', mark: 'A', called: 'rail', pieces: 2, why: '' },
      ...{ before: null, after: null },
    }
    const { it: told, asked } = await page(
      { data: rackOf([boardOf()]) },
      { data: [effect] },
      { data: rackOf([boardOf({ width: '3 3/8' })], { version: 5 }) },
    )
    await press('Measure')
    await type(told, 'Width, marked end of board 7', '3 3/8')
    expect(asked[1]?.path).toBe('/api/rack/boards/board/effect')
    expect(document.body.textContent).toContain('One part changes')
    expect(asked).toHaveLength(2)
    await press('Apply the size')
    expect(asked[2]).toMatchObject({ method: 'PUT', body: { width: '3 3/8' } })
  })

  it('leaves the old size where that is wished', async () => {
    const effect = { project: 'Boardwalk', mark: 'A', called: 'rail', pieces: 2, why: '' }
    const { it: told, asked } = await page(
      { data: rackOf([boardOf()]) },
      { data: [{ ...effect, before: null, after: null }] },
    )
    await press('Measure')
    await type(told, 'Thickness of board 7', '1 3/8')
    await press('Leave it')
    expect(asked).toHaveLength(2)
    expect(told.text()).toContain('not applied')
  })

  it('takes a board off', async () => {
    const { asked, words } = await page({ data: rackOf([boardOf()]) }, { data: rackOf([]) })
    await press('Take off')
    expect(asked[1]).toMatchObject({ path: '/api/rack/boards/remove', body: { boards: ['board'] } })
    expect(words()).toContain('0 boards on hand')
  })

  it('keeps a new board that cannot be read, with what is wrong at its field', async () => {
    const refused = { detail: '', problems: [{ place: 'length', message: 'a length is missing' }] }
    const { it: told, asked } = await page(
      { data: rackOf([]) },
      { status: 422, data: refused },
      { data: rackOf([boardOf({ stock: '2x6' })]) },
    )
    const [stock, length] = told.findAll<HTMLInputElement>('form.new input')
    await stock!.setValue('2x6')
    await told.get('form.new').trigger('submit')
    await flushPromises()
    expect(told.text()).toContain('a length is missing')
    expect(stock!.element.value).toBe('2x6')
    await length!.setValue('48')
    await told.get('form.new').trigger('submit')
    await flushPromises()
    expect(asked[2]?.body).toMatchObject({ stock: '2x6', length: '48' })
    expect(stock!.element.value).toBe('')
  })

  it('says that it cannot be reached, and asks again', async () => {
    const { words } = await page('no connection', { data: rackOf([boardOf()]) })
    expect(words()).toContain('The rack')
    await press('Try again')
    expect(words()).toContain('1 board on hand')
  })
})
