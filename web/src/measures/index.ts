/** Measures and runs of a project, and the marks that come out. */
import { defineAsyncComponent } from 'vue'

export const MarksLeaf = defineAsyncComponent(() => import('./MarksLeaf.vue'))
export const MeasuresLeaf = defineAsyncComponent(() => import('./MeasuresLeaf.vue'))
export const WorkOut = defineAsyncComponent(() => import('./WorkOut.vue'))
