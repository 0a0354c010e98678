import { createRouter, createWebHistory } from 'vue-router'

import { ProjectRoom, ProjectsPage } from '@/features/projects'

/** Every screen has an address, so that reloading keeps the place. */
export const router = createRouter({
  history: createWebHistory(),
  scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
  routes: [
    { path: '/', name: 'projects', component: ProjectsPage, meta: { title: 'Projects' } },
    {
      path: '/projects/:project',
      component: ProjectRoom,
      props: true,
      children: [
        { path: '', redirect: (to) => ({ name: 'plan', params: to.params }) },
        {
          path: 'plan',
          name: 'plan',
          component: () => import('@/features/planning').then((m) => m.PlanPage),
          meta: { title: 'Plan' },
        },
        {
          path: 'trim',
          name: 'trim',
          component: () => import('@/features/trimming').then((m) => m.TrimPage),
          meta: { title: 'Trim' },
        },
        {
          path: 'check',
          name: 'check',
          component: () => import('@/features/checking').then((m) => m.CheckPage),
          meta: { title: 'Check' },
        },
        {
          path: 'mend',
          name: 'mend',
          component: () => import('@/features/mending').then((m) => m.MendPage),
          meta: { title: 'Mend' },
        },
      ],
    },
    {
      path: '/settings',
      name: 'settings',
      component: () => import('@/features/settings').then((m) => m.SettingsPage),
      meta: { title: 'Settings' },
    },
    {
      path: '/:rest(.*)*',
      name: 'nowhere',
      component: () => import('./NowherePage.vue'),
      meta: { title: 'Nothing here' },
    },
  ],
})

router.afterEach((to) => {
  document.title = to.meta.title ? `${String(to.meta.title)} · Entretoile` : 'Entretoile'
})
