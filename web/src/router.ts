import { createRouter, createWebHistory, type RouteLocation } from 'vue-router'
import { AccountPage, SignInPage } from './account'
import { loadSession, queries, session } from './api'
import { DaysPage } from './days'
import { DeskPage } from './desk'
import { ShoppingPage } from './list'
import { MaterialsPage } from './materials'
import { projectQuery } from './project'
import { ProjectsPage } from './projects'
import { RackPage } from './rack'
import { NowherePage } from './shared'
import { ShopPage } from './shop'
import { SizesPage } from './sizes'
import { ToolsPage } from './tools'
import { ReceiptPage, TripPage } from './trip'
import { YardPage, YardsPage } from './yards'

export const router = createRouter({
  history: createWebHistory('/'),
  routes: [
    { path: '/', redirect: '/projects' },
    {
      path: '/sign-in',
      name: 'sign-in',
      component: SignInPage,
      meta: { open: true, title: 'Sign in' },
    },
    {
      path: '/account',
      name: 'account',
      component: AccountPage,
      meta: { title: 'Account' },
    },
    {
      path: '/projects',
      name: 'projects',
      component: ProjectsPage,
      meta: { title: 'Projects' },
    },
    {
      path: '/projects/:id',
      name: 'desk',
      component: DeskPage,
      meta: { title: 'Desk', ofProject: true },
    },
    {
      path: '/projects/:id/list',
      name: 'list',
      component: ShoppingPage,
      meta: { title: 'Shopping list', ofProject: true },
    },
    {
      path: '/projects/:id/yard',
      name: 'trip',
      component: TripPage,
      meta: { title: 'At the yard', bare: true, ofProject: true },
    },
    {
      path: '/projects/:id/shop',
      name: 'shop',
      component: ShopPage,
      meta: { title: 'Shop', bare: true, full: true, ofProject: true },
    },
    {
      path: '/projects/:id/days',
      name: 'days',
      component: DaysPage,
      meta: { title: 'Days', ofProject: true },
    },
    {
      path: '/trips/:id/receipt',
      name: 'receipt',
      component: ReceiptPage,
      meta: { title: 'Receipt' },
    },
    {
      path: '/yards',
      name: 'yards',
      component: YardsPage,
      meta: { title: 'Yards' },
    },
    {
      path: '/yards/:id',
      name: 'yard',
      component: YardPage,
      meta: { title: 'Yard' },
    },
    {
      path: '/rack/:board?',
      name: 'rack',
      component: RackPage,
      meta: { title: 'Rack' },
    },
    {
      path: '/materials',
      name: 'materials',
      component: MaterialsPage,
      meta: { title: 'Materials' },
    },
    {
      path: '/tools',
      name: 'tools',
      component: ToolsPage,
      meta: { title: 'Tools' },
    },
    {
      path: '/sizes',
      name: 'sizes',
      component: SizesPage,
      meta: { title: 'Size book' },
    },
    {
      path: '/:rest(.*)*',
      name: 'nowhere',
      component: NowherePage,
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
