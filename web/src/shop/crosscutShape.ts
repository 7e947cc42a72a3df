import type { CardCut } from '../api'

/** A crosscut as it is drawn: one scale in both directions, the middle of a long board broken away. */
export const WIDE = 660
const INCH = 8128
const MARGIN = { left: 62, right: 14 }
const TALLEST = 96
const LARGEST = 42 / INCH

export type Corner = readonly [number, number]

export interface CrosscutShape {
  /** Where on the picture something is that is so far from what touches the stop (ticks). */
  x: (out: number) => number
  scale: number
  /** Ticks across and through as they are drawn. */
  wide: number
  thick: number
  /** Where the middle is left out, from and to on the picture. */
  gap: readonly [number, number] | null
  near: { above: Corner[]; front: Corner[] }
  far: { above: Corner[]; front: Corner[] }
  blade: { above: Corner[]; front: Corner[] }
}

interface Zones {
  left: number
  start: number
  blade: number
  end: number
}

function zones(cut: CardCut, wide: number): Zones {
  const beside = wide * 0.8
  return {
    left: Math.min(...cut.near_end),
    start: Math.max(...cut.near_end) + beside,
    blade: Math.min(...cut.blade) - beside,
    end: Math.min(
      Math.max(...cut.far_end, ...cut.blade),
      Math.max(...cut.blade) + cut.kerf + beside,
    ),
  }
}

function at(list: readonly number[], index: number): number {
  return list[index] ?? 0
}

/** Sides at the corners of the section: from above those on the face, from the front those at the
 * fence. */
function seen(left: readonly number[], right: readonly number[], wide: number, thick: number) {
  const above: Corner[] = [
    [at(left, 0), 0],
    [at(right, 0), 0],
    [at(right, 1), wide],
    [at(left, 1), wide],
  ]
  const front: Corner[] = [
    [at(left, 0), 0],
    [at(right, 0), 0],
    [at(right, 3), thick],
    [at(left, 3), thick],
  ]
  return { above, front }
}

export function shapeOf(cut: CardCut): CrosscutShape {
  const wide = cut.size[1] ?? 1
  const thick = cut.size[2] ?? 1
  const zone = zones(cut, wide)
  const room = WIDE - MARGIN.left - MARGIN.right
  const parts = zone.start - zone.left + (zone.end - zone.blade)
  const isWhole = zone.blade <= zone.start
  const span = isWhole ? zone.end - zone.left : parts * 1.06
  const scale = Math.min(LARGEST, TALLEST / wide, room / span)
  const breaks = !isWhole && (zone.end - zone.left) * scale > room
  const second = WIDE - MARGIN.right - zone.end * scale
  const x = (out: number) =>
    breaks && out > zone.start
      ? Math.max(second + out * scale, MARGIN.left + (zone.start - zone.left) * scale)
      : MARGIN.left + (out - zone.left) * scale
  const after = cut.blade.map((one) => one + cut.kerf)
  // what goes on beyond the picture runs off its edge
  const edge = (WIDE + MARGIN.right - x(zone.end)) / scale + zone.end
  const rest = cut.far_end.map((one) => Math.min(one, edge))
  return {
    x,
    scale,
    wide,
    thick,
    gap: breaks ? [x(zone.start), second + zone.blade * scale] : null,
    near: seen(cut.near_end, cut.blade, wide, thick),
    far: seen(after, rest, wide, thick),
    blade: seen(cut.blade, after, wide, thick),
  }
}
