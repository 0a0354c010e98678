import { keepPreviousData, queryOptions, useQuery } from '@tanstack/vue-query'
import { computed, type MaybeRefOrGetter, toValue } from 'vue'

import { api, type Schemas, taken } from '@/shared/api/client'

/** One page of the list, of the archive or of what is on the table. The page before stays until the next is there. */
export const useProjects = (page: () => number, archived: boolean, wanted: () => boolean = () => true) =>
  useQuery(
    computed(() => ({
      queryKey: ['projects', archived, page()],
      queryFn: () => taken(api.GET('/api/projects', { params: { query: { page: page(), archived } } })),
      enabled: wanted(),
      placeholderData: keepPreviousData,
    })),
  )

export const useProject = (id: MaybeRefOrGetter<string>) =>
  useQuery(
    computed(() => ({
      queryKey: ['project', toValue(id)],
      queryFn: () => taken(api.GET('/api/projects/{key}', { params: { path: { key: toValue(id) } } })),
    })),
  )

/** A new project from what was exported. */
export const importProject = (data: Schemas['ProjectFile']) =>
  taken(api.POST('/api/exchange/projects', { body: data }))

const kindsQuery = queryOptions({
  queryKey: ['kinds'],
  queryFn: () => taken(api.GET('/api/kinds')),
  staleTime: Infinity,
})

/** The kinds of unit there are, with their parts, ways and pictures. */
export const useKinds = () => useQuery(kindsQuery)

export const useHistory = (project: () => string, wanted: () => boolean) =>
  useQuery(
    computed(() => ({
      queryKey: ['history', project()],
      queryFn: () => taken(api.GET('/api/projects/{key}/history', { params: { path: { key: project() } } })),
      enabled: wanted(),
    })),
  )

/** A project at the bench: what is done of every unit and block, and where to go on. */
export const useBench = (project: MaybeRefOrGetter<string>) =>
  useQuery(
    computed(() => ({
      queryKey: ['bench', toValue(project)],
      queryFn: () =>
        taken(api.GET('/api/projects/{key}/bench', { params: { path: { key: toValue(project) } } })),
      placeholderData: keepPreviousData,
    })),
  )
