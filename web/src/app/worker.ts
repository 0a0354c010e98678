import type { Router } from 'vue-router'

import { inWindow } from '@/shared/offline/preference'

/**
 * The worker that opens the page with the server stopped. A newer build takes over by itself: the page is loaded anew at
 * the next step one takes, when nothing is being typed.
 */
export function openWorker(router: Router) {
  let newer = false
  const { serviceWorker } = navigator as { serviceWorker?: ServiceWorkerContainer }
  if (serviceWorker && import.meta.env.PROD) {
    const had = !!serviceWorker.controller
    serviceWorker.addEventListener('controllerchange', () => (newer = had))
    serviceWorker.register('/sw.js').catch(() => undefined)
  }
  router.beforeResolve((to, from) => {
    if (!newer || !from.name || to.path === from.path) return true
    window.location.assign(to.fullPath)
    return false
  })
  // A part of the page that an older build had and a newer one has not: the whole page is read again, once.
  router.onError((error, to) => {
    if (!(error instanceof TypeError) || !navigator.onLine || inWindow.getItem('entretoile.again')) return
    inWindow.setItem('entretoile.again', to.fullPath)
    window.location.assign(to.fullPath)
  })
  router.afterEach(() => inWindow.removeItem('entretoile.again'))
}
