import { beforeEach, expect, test } from 'vitest'
import { shown } from '../testing/shown'
import CautionList from './CautionList.vue'

beforeEach(() => sessionStorage.clear())

test('a caution is put away for now and never for good', async () => {
  const list = shown(CautionList, { cautions: ['Wear a mask.', 'Wear a mask.', 'Rags burn.'] })
  expect(list.findAll('p')).toHaveLength(2)
  await list.get('button').trigger('click')
  expect(list.findAll('p')).toHaveLength(0)
  expect(list.text()).toContain('2 cautions seen: show again')
  await list.get('button').trigger('click')
  expect(list.findAll('p')).toHaveLength(2)
  expect(localStorage.getItem('grain-tally:cautions-seen')).toBeNull()
})

test('one that was not there before shows though others are put away', async () => {
  const list = shown(CautionList, { cautions: ['Wear a mask.'] })
  await list.get('button').trigger('click')
  await list.setProps({ cautions: ['Wear a mask.', 'Rags burn.'] })
  expect(list.findAll('p').map((one) => one.text())).toEqual(['Rags burn.'])
})
