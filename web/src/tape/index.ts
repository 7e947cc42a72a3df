/** The tape: a calculator of lengths at the edge of every page. */
import { defineAsyncComponent } from 'vue'

export { panelOpen } from './tape'

export const TapePanel = defineAsyncComponent(() => import('./TapePanel.vue'))
