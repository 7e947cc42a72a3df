/** All projects of a workshop. */
export const ProjectsPage = () => import('./ProjectsPage.vue')
