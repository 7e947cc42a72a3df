/** Yards and their prices. */
export const YardsPage = () => import('./YardsPage.vue')
export const YardPage = () => import('./YardPage.vue')
