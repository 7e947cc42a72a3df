import type { BenchEvent, Cutting } from '../api'
import { keptOnDevice } from '../shared'

/** What a tablet keeps of cuttings. */
export const keptCuttings = keptOnDevice<Cutting, BenchEvent>({
  things: 'cuttings',
  events: 'benchEvents',
  whose: 'cutting',
})
