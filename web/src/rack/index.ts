/** Boards on hand. */
export const RackPage = () => import('./RackPage.vue')
