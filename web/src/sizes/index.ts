/** The size book. */
export const SizesPage = () => import('./SizesPage.vue')
