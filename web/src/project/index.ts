/** The project that is open: itself, its plan, its settings and its yard. */
import { defineAsyncComponent } from 'vue'

export { default as YardChoice } from './YardChoice.vue'
export { lastId, projectQuery, useOpenProject } from './openProject'
export { ASKED_OF_A_YARD, UNITS, useNewYard } from './useNewYard'
export { useProject, type ProjectOnDesk } from './useProject'
export { useTypedLines } from './useTypedLines'
export { useYards } from './useYards'

export const SettingsDialog = defineAsyncComponent(() => import('./SettingsDialog.vue'))
