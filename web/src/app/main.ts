import './nonce'
import './styles.css'

import { VueQueryPlugin } from '@tanstack/vue-query'
import { createApp } from 'vue'

import { watchForReturn } from '@/shared/api/client'
import { openOffline } from '@/shared/offline'
import { typingOpensLists } from '@/shared/form/typingOpensLists'
import { openWords } from '@/shared/words/words'

import App from './App.vue'
import { router } from './router'
import { openWorker } from './worker'

watchForReturn()
typingOpensLists()
openWorker(router)
void Promise.all([openOffline(), openWords()]).then(([queryClient]) =>
  createApp(App).use(router).use(VueQueryPlugin, { queryClient }).mount('#app'),
)
