/** The desk: parts on one side, boards on the other. */
export const DeskPage = () => import('./DeskPage.vue')
