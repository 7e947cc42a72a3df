import type { Laid, Measure, Run } from '../api'
import { inches } from './projects'

/** A measure of which only some is said. */
export function measureOf(said: Partial<Measure> & { name: string }): Measure {
  return {
    ...{ id: said.name, formula: '72', measured: '', measured_on: '', note: '' },
    ...{ value: { kind: 'number', text: '72', length: null, exact: true }, computed: null },
    ...{ problems: [], specimens: [], used_by: [] },
    ...said,
  }
}

/** Three items of 3 in, 10 in apart from near edge to near edge, in 30 in. */
export function laidOf(said: Partial<Laid> = {}): Laid {
  const marks = [2, 12, 22].map((at, index) => ({
    number: index + 1,
    left: inches(at),
    right: inches(30 - at),
    start: inches(at).ticks,
    wide: inches(3).ticks,
    left_out: false,
    loose: false,
    check: null,
  }))
  return {
    ...{ count: 3, pieces: 3, item: inches(3), along: inches(30), gap: inches(7), exact_gap: '7' },
    ...{ neighbours: [], marks, side: 'near', packers: [], rows: null, first: null, last: null },
    ...{ is_shifted: false, exposure: null, openings: [], caution: '' },
    ...said,
  }
}

/** A run of which only some is said. */
export function runOf(said: Partial<Run> & { name: string }): Run {
  return {
    ...{ id: said.name, along: '30', item: '3', way: 'count', figure: '3', gap: '', first: 'gap' },
    ...{
      last: 'gap',
      marks: 'near',
      rounding: '',
      packers: '',
      least: '',
      left_out: '',
      loose: '',
    },
    ...{ part: '', note: '', kind: 'durable', laid: laidOf(), problems: [], used_by: [] },
    ...said,
  }
}
