import { QueryClient } from '@tanstack/vue-query'

/** All that was fetched, by key. */
export const queries = new QueryClient({
  defaultOptions: { queries: { staleTime: 5_000, retry: 1, networkMode: 'always' } },
})
