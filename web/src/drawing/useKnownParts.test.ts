import { ref, watchEffect } from 'vue'
import { describe, expect, it } from 'vitest'
import { partOf } from '../testing/projects'
import { within } from '../testing/within'
import { useKnownParts } from './useKnownParts'

describe('the parts that boards are drawn with', () => {
  it('are those of the project, by id', () => {
    const parts = ref([partOf({ id: '1' }), partOf({ id: '2' })])
    const known = within(() => useKnownParts(() => parts.value)).it
    parts.value = [parts.value[1]!, partOf({ id: '3' })]
    expect([...known.keys()]).toEqual(['2', '3'])
  })

  it('draw a board anew only when one of its own is another', () => {
    const [one, two] = [partOf({ id: '1' }), partOf({ id: '2' })]
    const parts = ref([one, two])
    let drawn = 0
    const known = within(() => {
      const found = useKnownParts(() => parts.value)
      watchEffect(() => (found.get('1'), (drawn += 1)), { flush: 'sync' })
      return found
    }).it
    parts.value = [parts.value[0]!, partOf({ id: '2', length: '41' })]
    expect(drawn).toBe(1)
    expect(known.get('2')?.length).toBe('41')
    parts.value = [partOf({ id: '1', length: '42' }), parts.value[1]!]
    expect(drawn).toBe(2)
  })
})
