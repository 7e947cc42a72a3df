import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

/** What is searched for, kept in the address, and the page of what is found. */
export function useSearchedPage() {
  const route = useRoute()
  const router = useRouter()
  const search = computed({
    get: () => String(route.query.find ?? ''),
    set: (find: string | null) => void router.replace({ query: { find: find || undefined } }),
  })
  const page = ref(1)
  watch(search, () => (page.value = 1))
  return { search, found: refDebounced(search, 200), page }
}
