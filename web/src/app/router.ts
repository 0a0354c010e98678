import { nextTick } from 'vue'
import { createRouter, createWebHistory, type RouteRecordRaw } from 'vue-router'

import { ProjectRoom, ProjectsPage, type Stage, StandingPage, UnitChooser } from '@/features/projects'
import { letGo } from '@/shared/offline/typed'

const pages: Record<Stage, () => Promise<unknown>> = {
  plan: () => import('@/features/planning').then((m) => m.PlanPage),
  compare: () => import('@/features/planning').then((m) => m.ComparePage),
  sew: () => import('@/features/bench').then((m) => m.SewPage),
  press: () => import('@/features/bench').then((m) => m.PressPage),
  trim: () => import('@/features/trimming').then((m) => m.TrimPage),
  measure: () => import('@/features/diagnosis').then((m) => m.MeasurePage),
  diagnose: () => import('@/features/diagnosis').then((m) => m.DiagnosePage),
}
const titles: Record<Stage, string> = {
  plan: 'Plan',
  compare: 'Compare',
  sew: 'Sew',
  press: 'Press',
  trim: 'Trim',
  measure: 'Measure',
  diagnose: 'Diagnose',
}
const stages = (Object.keys(pages) as Stage[]).map((stage): RouteRecordRaw => ({
  path: `units/:unit/${stage}`,
  name: stage,
  component: pages[stage] as RouteRecordRaw['component'] & (() => Promise<unknown>),
  meta: { title: titles[stage] },
}))

const blockPages: RouteRecordRaw[] = [
  page(':block/lay', 'lay', 'Lay out', (m) => m.LayPage),
  page(':block/look', 'look', 'Look it over', (m) => m.LookPage),
  page('quilt', 'quilt', 'Quilt', (m) => m.QuiltPage),
  page('scraps', 'scraps', 'Scraps', (m) => m.ScrapsPage),
  page('counts', 'counts', 'Counts', (m) => m.CountsPage),
]

function page(
  path: string,
  name: string,
  title: string,
  which: (m: typeof import('@/features/blocks')) => unknown,
): RouteRecordRaw {
  const component = (() => import('@/features/blocks').then(which)) as RouteRecordRaw['component']
  return { path, name, component, meta: { title, layingOut: true } } as RouteRecordRaw
}

function recordsPage(
  path: string,
  name: string,
  title: string,
  which: (m: typeof import('@/features/records')) => unknown,
): RouteRecordRaw {
  const component = (() => import('@/features/records').then(which)) as RouteRecordRaw['component']
  return { path, name, component, meta: { title } } as RouteRecordRaw
}

/** Every screen has an address, so that reloading keeps the place. */
export const router = createRouter({
  history: createWebHistory(),
  scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
  routes: [
    { path: '/', name: 'projects', component: ProjectsPage, meta: { title: 'Projects' } },
    {
      path: '/new',
      name: 'begin',
      component: () => import('@/features/beginning').then((m) => m.BeginPage),
      meta: { title: 'A new project' },
    },
    {
      path: '/projects/:project',
      component: ProjectRoom,
      props: (to) => ({ project: to.params.project, unit: to.params.unit }),
      children: [
        {
          path: '',
          name: 'standing',
          component: StandingPage,
          meta: { title: 'Where it stands', layingOut: true },
        },
        // Without a unit in the address the room goes on to the first one.
        {
          path: ':stage(plan|compare|sew|press|trim|measure|diagnose|lot)',
          name: 'project',
          component: UnitChooser,
        },
        ...stages,
        {
          path: 'units/:unit/lot',
          name: 'lot',
          component: () => import('@/features/records').then((m) => m.LotPage),
          meta: { title: 'A lot, measured' },
        },
        {
          path: 'story',
          name: 'story',
          component: () => import('@/features/log').then((m) => m.StoryPage),
          meta: { title: 'The whole of it', layingOut: true },
        },
        {
          path: 'measured',
          name: 'measured',
          component: () => import('@/features/diagnosis').then((m) => m.MeasuredPage),
          meta: { title: 'As they measure', layingOut: true },
        },
        {
          path: 'cut',
          name: 'cut',
          component: () => import('@/features/cutting').then((m) => m.CutPage),
          meta: { title: 'Cut', layingOut: true },
        },
        {
          path: 'join',
          component: () => import('@/features/blocks').then((m) => m.LayoutRoom),
          meta: { layingOut: true },
          children: [
            page('', 'joins', 'Join', (m) => m.FirstBlock),
            page(':block', 'join', 'Join', (m) => m.JoinPage),
            page(':block/press', 'press-block', 'Press', (m) => m.PressBlockPage),
            {
              path: 'quilt',
              name: 'join-quilt',
              component: () => import('@/features/bench').then((m) => m.QuiltSteps),
              meta: { title: 'Join the quilt', layingOut: true },
            },
          ],
        },
        {
          path: 'ticket',
          name: 'ticket',
          component: () => import('@/features/cutting').then((m) => m.TicketPage),
          meta: { title: 'Bench ticket', layingOut: true },
        },
        {
          path: 'blocks',
          component: () => import('@/features/blocks').then((m) => m.LayoutRoom),
          meta: { layingOut: true },
          children: [
            {
              path: '',
              name: 'blocks',
              component: () => import('@/features/blocks').then((m) => m.FirstBlock),
            },
            ...blockPages,
            {
              path: ':block/measure',
              name: 'measure-block',
              component: () => import('@/features/diagnosis').then((m) => m.MeasurePage),
              meta: { title: 'Measure', layingOut: true },
            },
            {
              path: ':block/diagnose',
              name: 'diagnose-block',
              component: () => import('@/features/diagnosis').then((m) => m.DiagnosePage),
              meta: { title: 'Diagnose', layingOut: true },
            },
            { path: ':block/join', redirect: (to) => ({ ...to, name: 'join' }) },
            { path: ':block/sewn', redirect: (to) => ({ ...to, name: 'diagnose-block' }) },
            {
              path: ':block/what-if',
              name: 'what-if',
              component: () => import('@/features/diagnosis').then((m) => m.WhatIfPage),
              meta: { title: 'What if', layingOut: true },
            },
          ],
        },
      ],
    },
    {
      path: '/projects/:project/bench',
      name: 'bench',
      component: () => import('@/features/bench').then((m) => m.BenchPage),
      props: true,
      meta: { title: 'At the bench', bare: true },
    },
    {
      path: '/wrong',
      name: 'wrong',
      component: () => import('@/features/diagnosis').then((m) => m.WrongPage),
      meta: { title: 'What is wrong' },
    },
    {
      path: '/shelf',
      name: 'shelf',
      component: () => import('@/features/shelf').then((m) => m.ShelfPage),
      meta: { title: 'Shelf' },
    },
    {
      path: '/records',
      component: () => import('@/features/records').then((m) => m.RecordsRoom),
      children: [
        recordsPage('', 'records', 'Machine and seam', (m) => m.MachinePage),
        recordsPage('hands', 'hands', 'Hands', (m) => m.HandsPage),
        recordsPage('library', 'foretold', 'Will it come out?', (m) => m.LibraryPage),
        {
          path: 'log',
          name: 'log',
          component: () => import('@/features/log').then((m) => m.LogPage),
          meta: { title: 'Log' },
        },
        {
          path: 'minutes',
          name: 'minutes',
          component: () => import('@/features/time').then((m) => m.TimePage),
          meta: { title: 'Minutes' },
        },
        {
          path: 'evenings',
          name: 'evenings',
          component: () => import('@/features/time').then((m) => m.EveningsPage),
          meta: { title: 'Evenings' },
        },
        recordsPage('diagnoses', 'kept-diagnoses', 'Diagnoses kept', (m) => m.DiagnosesPage),
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

window.addEventListener('pagehide', letGo)
router.beforeEach((to, from) => {
  if (to.path !== from.path) letGo()
})

router.afterEach((to, from) => {
  document.title = to.meta.title ? `${String(to.meta.title)} · Entretoile` : 'Entretoile'
  if (from.matched.length && to.path !== from.path) void nextTick(goOnFromTheWork)
})

/** What had the focus went with the page that was left: the keyboard goes on from the new one's work, not from the top of the window. */
function goOnFromTheWork() {
  const main = document.getElementById('main')
  if (!main || document.activeElement !== document.body) return
  main.tabIndex = -1
  main.focus({ preventScroll: true })
}
