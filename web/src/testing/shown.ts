import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { mount, type VueWrapper } from '@vue/test-utils'
import { onTestFinished } from 'vitest'
import type { Component } from 'vue'
import { createMemoryHistory, createRouter } from 'vue-router'
import { createVuetify } from 'vuetify'

// What dialogs look for, and the simulated browser has not.
globalThis.visualViewport ??= new EventTarget() as VisualViewport

const NAMED = ['tools', 'rack']
const NOTHING = { template: '<div />' }

/** A component as the application shows it, with its library, router and queries, and what is
 * provided from above. */
export function shown<T extends Component>(
  component: T,
  props: Record<string, unknown> = {},
  slots: Record<string, string> = {},
  provided: [symbol, unknown][] = [],
): VueWrapper {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      ...NAMED.map((name) => ({ path: `/${name}`, name, component: NOTHING })),
      { path: '/:rest(.*)*', component: NOTHING },
    ],
  })
  const queryClient = new QueryClient({
    defaultOptions: { queries: { retry: false, networkMode: 'always' } },
  })
  document.body.insertAdjacentHTML('beforeend', '<div id="header-acts"></div>')
  const mounted = mount(component as never, {
    props: props as never,
    slots,
    attachTo: document.body,
    global: {
      provide: Object.fromEntries(provided),
      plugins: [createVuetify(), router, [VueQueryPlugin, { queryClient }]],
    },
  }) as VueWrapper
  onTestFinished(() => {
    mounted.unmount()
    queryClient.clear()
    document.body.innerHTML = ''
  })
  return mounted
}
