import './nonce'
import './styles.css'

import { VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'

import { watchForReturn } from '@/shared/api/client'
import { openOutbox } from '@/shared/offline/outbox'
import { openWords } from '@/shared/words/words'

import App from './App.vue'
import { router } from './router'

watchForReturn()
const app = createApp(App).use(router).use(VueQueryPlugin, { queryClient: openOutbox() })
void openWords().then(() => app.mount('#app'))
