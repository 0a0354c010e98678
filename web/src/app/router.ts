import { createRouter, createWebHistory, type RouteRecordRaw } from 'vue-router'

import { ProjectRoom, ProjectsPage, type Stage, UnitChooser } from '@/features/projects'

const pages: Record<Stage, () => Promise<unknown>> = {
  plan: () => import('@/features/planning').then((m) => m.PlanPage),
  compare: () => import('@/features/planning').then((m) => m.ComparePage),
  trim: () => import('@/features/trimming').then((m) => m.TrimPage),
  check: () => import('@/features/checking').then((m) => m.CheckPage),
  mend: () => import('@/features/mending').then((m) => m.MendPage),
}
const titles: Record<Stage, string> = {
  plan: 'Plan',
  compare: 'Compare',
  trim: 'Trim',
  check: 'Check',
  mend: 'Mend',
}
const stages = (Object.keys(pages) as Stage[]).map((stage): RouteRecordRaw => ({
  path: `units/:unit/${stage}`,
  name: stage,
  component: pages[stage] as RouteRecordRaw['component'] & (() => Promise<unknown>),
  meta: { title: titles[stage] },
}))

/** Every screen has an address, so that reloading keeps the place. */
export const router = createRouter({
  history: createWebHistory(),
  scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
  routes: [
    { path: '/', name: 'projects', component: ProjectsPage, meta: { title: 'Projects' } },
    {
      path: '/projects/:project',
      component: ProjectRoom,
      props: (to) => ({ project: to.params.project, unit: to.params.unit }),
      children: [
        // Without a unit in the address the room goes on to the first one.
        { path: ':stage(plan|compare|trim|check|mend)?', name: 'project', component: UnitChooser },
        ...stages,
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
