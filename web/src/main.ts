import './styles/tokens.css'
import './styles/base.css'
import './styles/library.css'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'
import { queries } from './api'
import App from './App.vue'
import { loadAhead, router } from './router'
import { vuetify } from './theme'

loadAhead(router.resolve(location.pathname + location.search))
createApp(App).use(router).use(vuetify).use(VueQueryPlugin, { queryClient: queries }).mount('#app')
