import './nonce'
import './styles.css'

import { VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'

import { watchForReturn } from '@/shared/api/client'
import { openOutbox } from '@/shared/api/outbox'

import App from './App.vue'
import { router } from './router'

watchForReturn()
createApp(App).use(router).use(VueQueryPlugin, { queryClient: openOutbox() }).mount('#app')
