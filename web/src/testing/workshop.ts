import type {
  BookSize,
  Materials,
  OwnMaterial,
  PriceLine,
  Rack,
  RackBoard,
  Toolbox,
  WayToSize,
  Yard,
} from '../api'
import { inches, sectionOf } from './projects'

const UNCHANGED = { change: '', undo: null, redo: null }

/** A board on the rack, of which only some is said. */
export function boardOf(said: Partial<RackBoard> = {}): RackBoard {
  return {
    ...{ id: 'board', number: 7, stock: '2x4', length: '70 1/2', length_shown: inches(70) },
    ...{ kind: 'plain', place: 'left bay', note: '', flaws: '', twist: '', left_alone: '' },
    ...{ thickness: '', width: '', width_middle: '', width_end: '', crook: '', bow: '', cup: '' },
    ...{ section: sectionOf(2, 4), section_source: 'the standard', straight_width: inches(3) },
    ...said,
  }
}

export function rackOf(boards: RackBoard[], said: Partial<Rack> = {}): Rack {
  const count = boards.length
  return { ...UNCHANGED, boards, found: count, total: count, page_size: 50, version: 4, ...said }
}

/** A line of a yard's price list. */
export function lineOf(said: Partial<PriceLine> = {}): PriceLine {
  return {
    ...{ id: 'line', stock: '2x4', length: '8ft', named_length: '8 ft', real_length: inches(96) },
    ...{ actual: '', available: '', date: '2026-11-02', is_old: false, kind: 'plain' },
    ...{ per: 'each', price: '4.10', piece_price: '$4.10', warnings: [], thickness: '', width: '' },
    ...{ section: sectionOf(2, 4), section_is_own: false },
    ...said,
  }
}

export function yardOf(lines: PriceLine[], said: Partial<Yard> = {}): Yard {
  return {
    ...UNCHANGED,
    ...{ id: 'bell', name: 'Bell Yard', version: 5, currency: 'USD', unit: 'in', updated: '' },
    ...{ tax_rate: '7', prices_include_tax: false, board_foot_rounding: 'each', walk: '' },
    ...{ packs: '', price_service: '', service_code: '', services: ['simulated yard'] },
    ...{ price_age_days: 90, old_prices: 0, page_size: 100 },
    ...{ lines, found: lines.length, total: lines.length },
    ...said,
  }
}

/** A toolbox with a miter saw and a sled, and what can be said of these. */
export function toolboxOf(said: Partial<Toolbox> = {}): Toolbox {
  const limit = { help: '', choices: [] as string[] }
  return {
    ...UNCHANGED,
    version: 2,
    can: ['Crosscuts up to 12″'],
    kinds: [
      {
        kind: 'miter saw',
        limits: [
          { ...limit, name: 'crosscut', heading: 'Crosscuts, square', kind: 'length' },
          { ...limit, name: 'tilt', heading: 'Tilts to', kind: 'angle' },
          {
            ...{ name: 'side', heading: 'Blade tilts', help: '', kind: 'choice' },
            choices: ['left', 'right'],
          },
        ],
      },
      { kind: 'sled', limits: [] },
    ],
    tools: [{ id: 'saw', kind: 'miter saw', name: '', limits: { crosscut: '12', tilt: '45' } }],
    ...said,
  }
}

/** A material of a builder's own. */
export function materialOf(said: Partial<OwnMaterial> = {}): OwnMaterial {
  return {
    ...{ id: 'beam', name: 'Barn beam', form: 'board', kind: 'plain', used: 0, caution: '' },
    ...{ thickness: '3', width: '9', section: sectionOf(3, 9), density: '500' },
    ...{ kilograms_per_m3: '500', exposure: 'indoors, or sealed on every face' },
    ...said,
  }
}

export function materialsOf(own: OwnMaterial[], said: Partial<Materials> = {}): Materials {
  const exposures = ['indoors, or sealed on every face', 'outdoors, off the ground']
  const wood = {
    ...{ word: 'cedar', name: 'western red cedar', pounds_per_foot3: '23' },
    ...{ kilograms_per_m3: '370', exposure: exposures[1]!, caution: 'its dust irritates' },
  }
  return { ...UNCHANGED, version: 1, exposures, own, woods: [wood], ...said }
}

const both = (whole: number) => ({ inches: inches(whole), millimetres: inches(whole) })

/** A size of the book. */
export function sizeOf(name: string, thickness: number, width: number): BookSize {
  const none = { green_thickness: null, green_width: null }
  return { name, thickness: both(thickness), width: both(width), ...none }
}

/** A way to a finished size. */
export function wayOf(said: Partial<WayToSize> = {}): WayToSize {
  return {
    ...{ way: 'rip', boards: 1, size: '1x8', cost: '$2.10' },
    ...{ thickness: both(1), width: both(7), off_width: both(1), off_thickness: both(0) },
    ...said,
  }
}
