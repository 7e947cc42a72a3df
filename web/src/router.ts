import {
  createRouter,
  createWebHistory,
  type RouteComponent,
  type RouteLocation,
  type RouteRecordRaw,
} from 'vue-router'
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
    page('/sign-in', 'sign-in', SignInPage, 'Sign in', { open: true }),
    page('/account', 'account', AccountPage, 'Account'),
    page('/projects', 'projects', ProjectsPage, 'Projects'),
    page('/projects/:id', 'desk', DeskPage, 'Desk', { ofProject: true }),
    page('/projects/:id/list', 'list', ShoppingPage, 'Shopping list', { ofProject: true }),
    page('/projects/:id/yard', 'trip', TripPage, 'At the yard', { bare: true, ofProject: true }),
    page('/projects/:id/shop', 'shop', ShopPage, 'Shop', {
      ...{ bare: true, full: true },
      ofProject: true,
    }),
    page('/projects/:id/days', 'days', DaysPage, 'Days', { ofProject: true }),
    page('/trips/:id/receipt', 'receipt', ReceiptPage, 'Receipt'),
    page('/yards', 'yards', YardsPage, 'Yards'),
    page('/yards/:id', 'yard', YardPage, 'Yard'),
    page('/rack/:board?', 'rack', RackPage, 'Rack'),
    page('/materials', 'materials', MaterialsPage, 'Materials'),
    page('/tools', 'tools', ToolsPage, 'Tools'),
    page('/sizes', 'sizes', SizesPage, 'Size book'),
    page('/:rest(.*)*', 'nowhere', NowherePage, 'Nothing here', { open: true }),
  ],
})

/** A page with its title, and what else is so of it: it is open to all, of one project, without the
 * header on a phone, or on a tablet, too. */
function page(
  path: string,
  name: string,
  component: () => Promise<unknown>,
  title: string,
  more: { open?: boolean; ofProject?: boolean; bare?: boolean; full?: boolean } = {},
): RouteRecordRaw {
  return { path, name, component: component as RouteComponent, meta: { title, ...more } }
}

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
