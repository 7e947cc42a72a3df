import type { BenchEvent, Cutting } from '../api/client'
import { keptOnDevice } from '../shared/onDevice'

/** What a tablet keeps of cuttings. */
export const keptCuttings = keptOnDevice<Cutting, BenchEvent>({
  things: 'cuttings',
  events: 'benchEvents',
  whose: 'cutting',
})
