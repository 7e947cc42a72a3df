import { createRouter, createWebHistory, type RouteLocation } from 'vue-router'
import { loadSession, session } from './account/session'
import { queries } from './api/queries'
import { projectQuery } from './projects/openProject'

export const router = createRouter({
  history: createWebHistory('/'),
  routes: [
    { path: '/', redirect: '/projects' },
    {
      path: '/sign-in',
      name: 'sign-in',
      component: () => import('./account/SignInPage.vue'),
      meta: { open: true, title: 'Sign in' },
    },
    {
      path: '/account',
      name: 'account',
      component: () => import('./account/AccountPage.vue'),
      meta: { title: 'Account' },
    },
    {
      path: '/projects',
      name: 'projects',
      component: () => import('./projects/ProjectsPage.vue'),
      meta: { title: 'Projects' },
    },
    {
      path: '/projects/:id',
      name: 'desk',
      component: () => import('./desk/DeskPage.vue'),
      meta: { title: 'Desk', ofProject: true },
    },
    {
      path: '/projects/:id/list',
      name: 'list',
      component: () => import('./list/ShoppingPage.vue'),
      meta: { title: 'Shopping list', ofProject: true },
    },
    {
      path: '/projects/:id/yard',
      name: 'trip',
      component: () => import('./trip/TripPage.vue'),
      meta: { title: 'At the yard', bare: true, ofProject: true },
    },
    {
      path: '/projects/:id/shop',
      name: 'shop',
      component: () => import('./shop/ShopPage.vue'),
      meta: { title: 'Shop', bare: true, full: true, ofProject: true },
    },
    {
      path: '/projects/:id/days',
      name: 'days',
      component: () => import('./days/DaysPage.vue'),
      meta: { title: 'Days', ofProject: true },
    },
    {
      path: '/trips/:id/receipt',
      name: 'receipt',
      component: () => import('./trip/ReceiptPage.vue'),
      meta: { title: 'Receipt' },
    },
    {
      path: '/yards',
      name: 'yards',
      component: () => import('./yards/YardsPage.vue'),
      meta: { title: 'Yards' },
    },
    {
      path: '/yards/:id',
      name: 'yard',
      component: () => import('./yards/YardPage.vue'),
      meta: { title: 'Yard' },
    },
    {
      path: '/rack/:board?',
      name: 'rack',
      component: () => import('./rack/RackPage.vue'),
      meta: { title: 'Rack' },
    },
    {
      path: '/materials',
      name: 'materials',
      component: () => import('./materials/MaterialsPage.vue'),
      meta: { title: 'Materials' },
    },
    {
      path: '/tools',
      name: 'tools',
      component: () => import('./tools/ToolsPage.vue'),
      meta: { title: 'Tools' },
    },
    {
      path: '/sizes',
      name: 'sizes',
      component: () => import('./sizes/SizesPage.vue'),
      meta: { title: 'Size book' },
    },
    {
      path: '/:rest(.*)*',
      name: 'nowhere',
      component: () => import('./shared/NowherePage.vue'),
      meta: { title: 'Nothing here', open: true },
    },
  ],
})

/** Starts to fetch what a route will want, which it would otherwise ask for one after the other. */
export function loadAhead(to: Pick<RouteLocation, 'matched' | 'meta' | 'params'>) {
  if (!session.value) void loadSession()
  for (const { components } of to.matched) {
    const page = components?.default
    if (typeof page === 'function') void (page as () => Promise<unknown>)().catch(() => undefined)
  }
  if (to.meta.ofProject) void queries.prefetchQuery(projectQuery(String(to.params.id)))
}

router.beforeEach(async (to) => {
  loadAhead(to)
  const known = session.value ?? (await loadSession())
  if (!to.meta.open && known && !known.username) {
    return { name: 'sign-in', query: { next: to.fullPath } }
  }
})

router.afterEach((to) => {
  document.title = `${String(to.meta.title ?? 'Grain Tally')} · Grain Tally`
})
