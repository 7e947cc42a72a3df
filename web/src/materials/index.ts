/** Woods, and materials of the builder’s own. */
export const MaterialsPage = () => import('./MaterialsPage.vue')
