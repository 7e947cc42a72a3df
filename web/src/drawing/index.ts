/** Boards, sections and slants, drawn to scale, and which part of them is lit. */
export { default as BoardPane } from './BoardPane.vue'
export { default as SlantSketch } from './SlantSketch.vue'
export { default as WoodPatterns } from './WoodPatterns.vue'
export { TICKS_PER_INCH } from './ticks'
export { useLighting, type Lighting } from './useLighting'
