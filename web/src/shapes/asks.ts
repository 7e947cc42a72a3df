import { SHAPES } from '../api'

/** What a shape asks for. */
export type Ask = (typeof SHAPES)[number]['asks'][number]

export function kindOf(shape: string) {
  return SHAPES.find((one) => one.name === shape) ?? SHAPES[0]
}

/** What stands where nothing was typed. */
export function usualOf(ask: Ask): string {
  if (ask.usual) return ask.usual
  return ask.open ? 'none' : 'missing'
}

/** Whether a measure is worked out: it takes names and arithmetic. */
export function isFigure(ask: Ask): boolean {
  return ask.kind !== 'stock' && ask.kind !== 'choice'
}
