import { expect, test } from 'vitest'
import { nextTick } from 'vue'
import { daysOf, step } from '../testing/days'
import { shown } from '../testing/shown'
import DaysDrawing from './DaysDrawing.vue'

function number(element: Element | undefined, name: string): number {
  return Number(element?.getAttribute(name))
}

test('work, waits and the line of now are to scale', async () => {
  const days = daysOf([
    step('glue'),
    step('oil', { spans: [[1440, 2160]], end: 2160, free_from: 2160 }),
  ])
  const page = shown(DaysDrawing, { days, modelValue: '' })
  await nextTick()
  const svg = page.get('svg').element
  const width = number(svg, 'width')
  const bars = page.findAll('rect.work').map((one) => one.element)
  expect(number(bars[1], 'x')).toBeCloseTo(width / 2)
  expect(number(bars[1], 'width')).toBeCloseTo(width / 4)
  const wait = page.get('rect.wait').element
  expect(number(wait, 'x')).toBeCloseTo((1110 / 2880) * width)
  expect(number(wait, 'width')).toBeCloseTo((600 / 2880) * width)
  expect(number(page.get('.now line').element, 'x1')).toBeCloseTo((1000 / 2880) * width)
  expect(page.findAll('rect.wait')).toHaveLength(1)
})

test('a step that cannot wait says so, and a press chooses it', async () => {
  const days = daysOf([step('glue', { critical: true, detail: 'clamps 30 min' })])
  const page = shown(DaysDrawing, { days, modelValue: '' })
  const button = page.get('button')
  expect(button.text()).toContain('cannot wait, clamps 30 min')
  await button.trigger('click')
  expect(page.emitted('update:modelValue')).toEqual([['glue']])
})

test('when it is wanted stands at its line', () => {
  const days = daysOf([step('glue')], { wanted: 1440, wanted_says: 'wanted Tue 8 pm' })
  const page = shown(DaysDrawing, { days, modelValue: '' })
  expect(page.get('.wanted').text()).toBe('wanted Tue 8 pm')
})
