import { queryOptions, useQuery } from '@tanstack/vue-query'
import { computed, type MaybeRefOrGetter, toValue } from 'vue'

import { api, type Schemas, taken } from '@/shared/api/client'

const projectsQuery = queryOptions({ queryKey: ['projects'], queryFn: () => taken(api.GET('/api/projects')) })

export const useProjects = () => useQuery(projectsQuery)

export const useProject = (id: MaybeRefOrGetter<string>) =>
  useQuery(
    computed(() => ({
      queryKey: ['project', toValue(id)],
      queryFn: () => taken(api.GET('/api/projects/{key}', { params: { path: { key: toValue(id) } } })),
    })),
  )

/** A new project from what was exported. */
export const importProject = (data: Schemas['AnyRequest']) =>
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
