/** The places of the work and the workshop: the header of every page. */
import { defineAsyncComponent } from 'vue'

export { default as AppHeader } from './AppHeader.vue'

export const KeysDialog = defineAsyncComponent(() => import('./KeysDialog.vue'))
