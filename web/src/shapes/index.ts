/** Shapes that make parts, and their drawings. */
import { defineAsyncComponent } from 'vue'

export { default as ShapeCard } from './ShapeCard.vue'
export { useDrawing, useShapes } from './useShapes'

export const DrawingLeaf = defineAsyncComponent(() => import('./DrawingLeaf.vue'))
export const NewShape = defineAsyncComponent(() => import('./NewShape.vue'))
export const ShapeView = defineAsyncComponent(() => import('./ShapeView.vue'))
