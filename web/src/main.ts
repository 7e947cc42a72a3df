import './styles/tokens.css'
import './styles/base.css'
import './styles/library.css'
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'
import { vuetify } from './theme'

const queryClient = new QueryClient({
  defaultOptions: { queries: { staleTime: 5_000, retry: 1, networkMode: 'always' } },
})

createApp(App).use(router).use(vuetify).use(VueQueryPlugin, { queryClient }).mount('#app')
