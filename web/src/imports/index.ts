/** Files and pasted tables that are taken in, and what is wrong with them. */
import { defineAsyncComponent } from 'vue'

export { default as FilePick } from './FilePick.vue'
export { default as PricesImport } from './PricesImport.vue'

export const ColumnChoice = defineAsyncComponent(() => import('./ColumnChoice.vue'))
export const FaultList = defineAsyncComponent(() => import('./FaultList.vue'))
export const PartsImport = defineAsyncComponent(() => import('./PartsImport.vue'))
