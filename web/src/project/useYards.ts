import { useQuery } from '@tanstack/vue-query'
import { api, keys } from '../api'

/** Every yard there is. */
export function useYards() {
  const { data, isError, refetch } = useQuery({
    queryKey: keys.yards,
    queryFn: async () => {
      const { data: yards } = await api.GET('/api/yards')
      if (!yards) throw new Error('the yards could not be loaded')
      return yards
    },
  })
  return { yards: data, isError, refetch }
}
