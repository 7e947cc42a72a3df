import { flushPromises, mount } from '@vue/test-utils'
import { defineComponent, h } from 'vue'
import { expect, it, vi } from 'vitest'
import { useSizedCells } from './useSizedCells'

interface Row {
  id: string
  width: string
  note: string
}
const row: Row = { id: 'b7', width: '5 1/2', note: '' }

/** A table whose listing of what changes is answered so. */
function table(isApplied: boolean) {
  const write = vi.fn(async () => ({ kind: 'done' as const, data: {} }))
  const ask = vi.fn(async () => ({ data: [], response: new Response() }))
  const refused = { kind: 'refused' as const, detail: 'left', problems: [] }
  const apply = async (asked: Promise<unknown>, save: () => unknown) => {
    await asked
    return isApplied ? save() : refused
  }
  const listing = defineComponent({
    setup(_, { expose }) {
      expose({ apply })
      return () => h('div')
    },
  })
  let cell!: ReturnType<typeof useSizedCells<Row>>
  mount({
    components: { listing },
    setup() {
      const isSize = (field: string) => field === 'width'
      cell = useSizedCells<Row>({ name: 'rack', called: ({ id }) => id, isSize, ask, write })
    },
    template: '<listing ref="effect" />',
  })
  return { cell, ask, write }
}

it('a size is written after what it changes was listed and applied', async () => {
  const { cell, ask, write } = table(true)
  expect((await cell(row, 'width', 'Width').save('5')).kind).toBe('done')
  expect(ask).toHaveBeenCalledWith(row, { width: '5' })
  expect(write).toHaveBeenCalledWith(row, { width: '5' })
})

it('a size that is to be left is not written', async () => {
  const { cell, write } = table(false)
  expect((await cell(row, 'width', 'Width').save('5')).kind).toBe('refused')
  expect(write).not.toHaveBeenCalled()
})

it('what is no size is written at once', async () => {
  const { cell, ask, write } = table(false)
  await cell(row, 'note', 'Note').save('loft')
  await flushPromises()
  expect(ask).not.toHaveBeenCalled()
  expect(write).toHaveBeenCalledWith(row, { note: 'loft' })
})
