/** The days of a project. */
export const DaysPage = () => import('./DaysPage.vue')
