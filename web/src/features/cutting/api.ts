import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, type MaybeRefOrGetter, toValue } from 'vue'

import { api, type Schemas, taken } from '@/shared/api/client'

export type Sheet = Schemas['CuttingSheet']
export type Stock = Schemas['Stock']

const key = (k: string) => ({ params: { path: { key: k } } })

/** Asked again and again while a plan is looked for. */
export const useCutting = (project: MaybeRefOrGetter<string>) =>
  useQuery(
    computed(() => ({
      queryKey: ['cutting', toValue(project)],
      queryFn: () => taken(api.GET('/api/projects/{key}/cutting', key(toValue(project)))),
      refetchInterval: (q: { state: { data?: Sheet } }) => (q.state.data?.job.running ? 400 : false),
    })),
  )

/** What no project has reserved. */
export const useShelf = () => useQuery({ queryKey: ['shelf'], queryFn: () => taken(api.GET('/api/shelf')) })

export const usePossible = (project: MaybeRefOrGetter<string>) =>
  useQuery(
    computed(() => ({
      queryKey: ['buying', toValue(project), 'possible'],
      queryFn: () => taken(api.GET('/api/projects/{key}/possible', key(toValue(project)))),
    })),
  )

type Allowances = { shrinkage?: number; wrong_cuts?: number; bobbin?: number }

export const useBuying = (project: MaybeRefOrGetter<string>, asked: () => Allowances) =>
  useQuery(
    computed(() => ({
      queryKey: ['buying', toValue(project), asked()],
      queryFn: () =>
        taken(
          api.GET('/api/projects/{key}/buying', {
            params: { path: { key: toValue(project) }, query: asked() },
          }),
        ),
      placeholderData: keepPreviousData,
      retry: false,
      refetchInterval: (query: { state: { data?: { better_coming: boolean } } }) =>
        query.state.data?.better_coming ? 1500 : false,
    })),
  )

export const begin = (project: string, goal: Schemas['GoalEnum'], along: boolean) =>
  taken(api.POST('/api/projects/{key}/cutting', { ...key(project), body: { goal, along } }))

export const stop = (project: string) => taken(api.DELETE('/api/projects/{key}/cutting', key(project)))

export const useTicket = (project: MaybeRefOrGetter<string>) =>
  useQuery(
    computed(() => ({
      queryKey: ['ticket', toValue(project)],
      queryFn: () => taken(api.GET('/api/projects/{key}/ticket', key(toValue(project)))),
    })),
  )

export const importList = (project: string, name: 'stock' | 'cut-list', text: string) =>
  taken(
    name === 'stock'
      ? api.POST('/api/projects/{key}/stock.csv', { ...key(project), body: { text } })
      : api.POST('/api/projects/{key}/cut-list.csv', { ...key(project), body: { text } }),
  )
