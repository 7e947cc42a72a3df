import { describe, expect, it } from 'vitest'
import { outcomeOf } from '../api'
import { serverThat } from '../testing/server'
import { useMeasures } from './useMeasures'

const seen = { version: 7, change_id: 'c' }
const desk = { change: (ask: (of: typeof seen) => never) => outcomeOf(ask(seen)) }

describe('measures and runs', () => {
  it('are changed one at a time, each at its own address, of the version seen', async () => {
    const asked = serverThat({ data: {} })
    const measures = useMeasures('gate', desk as never)
    await measures.addMeasure('height = 40')
    await measures.changeMeasure('m', 'formula' as never, '42')
    await measures.removeMeasure('m')
    await measures.changeRun('r', { gap: '1/2' } as never)
    await measures.removeRun('r')
    await measures.writePart('r', 'slat 1x4 30')
    expect(
      asked.map((one) => `${one.method} ${one.path.replace('/api/projects/gate', '')}`),
    ).toEqual([
      'POST /measures',
      'PATCH /measures/m',
      'POST /measures/remove',
      'PATCH /runs/r',
      'POST /runs/remove',
      'POST /runs/r/part',
    ])
    expect(asked.every((one) => one.body.version === 7 && one.body.change_id === 'c')).toBe(true)
    expect(asked[1]?.body.formula).toBe('42')
    expect(asked[4]?.body.parts).toEqual(['r'])
  })
})
