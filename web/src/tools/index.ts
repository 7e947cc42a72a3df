/** The tools of a workshop. */
export const ToolsPage = () => import('./ToolsPage.vue')
