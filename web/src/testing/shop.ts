import type { Card, CardCut, Cutting } from '../api'
import { inches } from './projects'

/** A cut at the saw, of which only some is said. */
export function cutOf(said: Partial<CardCut> = {}): CardCut {
  return {
    ...{ key: '1.1', board: 1, piece: 'board', makes: 'A1', labels: ['A1'], waste: 'beyond' },
    ...{ near: 20, far: 20.125, keeps_near: true, keeps_far: false, is_usual: true },
    ...{ against: 'edge', up: 'face', lies: 'face up', mark: inches(20), measured: inches(20) },
    corners: [
      [0, 0],
      [3.5, 0],
      [3.5, 1.5],
      [0, 1.5],
    ],
    ...{ line: 'line at 20″ from the marked end', line_along: 'edge', touches: '', kerf: 1000 },
    ...{ to_line: false, shape: null, first: 'marked end' },
    ...{ near_end: [0, 0, 0, 0], blade: Array(4).fill(162560), measured_how: '' },
    ...{ far_end: Array(4).fill(780288), size: [780288, 28448, 12192] },
    ...said,
  }
}

/** A set-up: a crosscut at a stop, of one cut of each of these boards. */
export function cardOf(boards: number[], said: Partial<Card> = {}): Card {
  return {
    ...{ key: 'stop 20', heading: 'Stop at', at: inches(20), do: 'stop', stands: 'square' },
    ...{ tells: 'the stop is 20″ from the blade', tool: 'miter saw', way: '', is_crosscut: true },
    ...{ angle: 0, tilt: 0, tilt_side: '', swing: '', fence_side: 'left', minutes: 4 },
    ...{ cautions: [], notes: [] },
    rows: boards.map((board) => ({
      ...{ board, called: `2x4 8 ft`, stock: '2x4', kind: 'plain', off: 'A' },
      cuts: [cutOf({ key: `${board}.1`, board, makes: `A${board}` })],
    })),
    ...said,
  }
}

/** What is cut of a project, with these set-ups in either order. */
export function cuttingOf(cards: Card[], said: Partial<Cutting> = {}): Cutting {
  const boards = [...new Set(cards.flatMap((card) => card.rows.map((row) => row.board)))]
  const sequence = { cards, fewest: true, lifts: 3, moves: cards.length, swings: 1, walks: 2 }
  return {
    ...{ id: 'cutting', project: 'stand', name: 'Stand', begun: '2026-11-30T08:00:00Z' },
    ...{ finished: false, marks: 'Mark every first end.', notation: '1/16', said: '' },
    ...{ seen: [], refused: [], done: [], last: null, changed: [], missing: [], not_yet: [] },
    ...{ held: [], labels: [] },
    by_stop: sequence,
    by_board: { ...sequence, fewest: false },
    boards: boards.map((number) => ({
      ...{ number, called: '8 ft', stock: '2x4', length: inches(96) },
      ...{ is_gone: false, is_more: false, is_whole: true },
      pieces: [{ number: 0, called: 'the board', length: inches(96) }],
    })),
    ...said,
  }
}
