import type { Layout, Length, Part, Plan, Project, Section } from '../api'
import { TICKS_PER_INCH } from '../drawing'

/** A length of whole inches. */
export function inches(whole: number): Length {
  return {
    whole: String(whole),
    numerator: null,
    denominator: null,
    mark: '″',
    text: `${whole}″`,
    exact: true,
    ticks: whole * TICKS_PER_INCH,
  }
}

export function sectionOf(thickness: number, width: number): Section {
  return { round: false, thickness: inches(thickness), width: inches(width) }
}

/** A part of which only some is said. */
export function partOf(said: Partial<Part> & { id: string }): Part {
  const typed = {
    ...{ boards: '', clear: '', edges: '', ends: '', extra_length: '', extra_thickness: '' },
    ...{ extra_width: '', grain: '', group: '', measured: '', note: '', own_stock: '', resaw: '' },
    ...{ rip: '', show: '', thickness: '', width: '', held: '', taped: '', taped_on: '' },
    ...{ notches: '', outline: '', together: '' },
  }
  const quantity = said.quantity ?? '2'
  return {
    ...typed,
    ...{ angles: '', bevels: '', kind: 'plain', mark: 'A', position: 0, weight: '', warnings: [] },
    ...{
      shape: null,
      by_hand: [],
      computed: null,
      follows: [],
      fault: '',
      is_held: false,
      shaping: [],
      sketch: null,
      other_faces: [],
    },
    ...{ over_all: null, sawn: null, slant: null, section: null, section_source: '' },
    name: 'rail',
    called: said.name ?? 'rail',
    quantity,
    pieces: Number(quantity),
    stock: '2x4',
    stock_name: '2x4',
    length: '40',
    length_shown: inches(40),
    ...said,
  }
}

/** A project of which only some is said. */
export function projectOf(said: Partial<Project> = {}): Project {
  const setting = (whole: number) => ({ typed: String(whole), shown: inches(whole) })
  return {
    ...{ id: 'project', name: 'Boardwalk', version: 3, unit: 'in', notation: '1/16' },
    ...{ yard: null, parts: [], pairs: {}, copies: 1, undo: null, redo: null, change: '' },
    ...{ kerf: setting(1), trim_start: setting(0), trim_end: setting(0) },
    ...{ rip: true, resaw: false, own_stock: false, share_angled_cuts: false },
    ...{ order: 'price', budget: 'usual', saw_miter: '', saw_tilt: '', spare: '0' },
    ...{ keep_from: setting(12), keep_width: setting(2), eased: setting(0) },
    ...{ extra_length: setting(0), extra_width: setting(0), extra_thickness: setting(0) },
    ...{ saw_crosscut: setting(0), saw_rip_depth: setting(0), saw_rip_width: setting(0) },
    ...{ days_wanted: '2027-06-10 20:00', steps: '' },
    ...{ saw_resaw_depth: setting(0), usual_rules: [], measures: [], runs: [], shapes: [] },
    ...said,
  } as Project
}

/** A plan of one wood, of which only some is said. */
export function planOf(of: Partial<Plan['materials'][number]>, said: Partial<Plan> = {}): Plan {
  const material = { stock: '2x4', layouts: [], unplaced: [], later: [], ...of }
  return {
    id: 'plan',
    stage: 'planned',
    cut: {},
    materials: [material],
    ...said,
  } as unknown as Plan
}

/** A board as it is cut, of which only some is said. */
export function layoutOf(said: Partial<Layout>): Layout {
  return { stock: '2x4', count: 1, keep: [], rack_numbers: [], ...said } as unknown as Layout
}
