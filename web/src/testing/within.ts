import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { mount } from '@vue/test-utils'
import { defineComponent, h } from 'vue'
import { onTestFinished } from 'vitest'

/** What a composable gives within a component, with the queries of that component. */
export function within<T>(
  use: () => T,
  queries = new QueryClient(),
): { it: T; queries: QueryClient } {
  queries.setDefaultOptions({ queries: { retry: false, networkMode: 'always' } })
  let it: T | undefined
  const holder = defineComponent({
    setup() {
      it = use()
      return () => h('div')
    },
  })
  const mounted = mount(holder, {
    global: { plugins: [[VueQueryPlugin, { queryClient: queries }]] },
  })
  onTestFinished(() => {
    mounted.unmount()
    queries.clear()
  })
  return { it: it as T, queries }
}
