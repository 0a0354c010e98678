import { queryOptions, useQuery } from '@tanstack/vue-query'
import { computed, type MaybeRefOrGetter, toValue } from 'vue'

import { api, taken } from '@/shared/api/client'

const projectsQuery = queryOptions({ queryKey: ['projects'], queryFn: () => taken(api.GET('/api/projects')) })

export const useProjects = () => useQuery(projectsQuery)

export const useProject = (id: MaybeRefOrGetter<string>) =>
  useQuery(
    computed(() => ({
      queryKey: ['project', toValue(id)],
      queryFn: () => taken(api.GET('/api/projects/{key}', { params: { path: { key: toValue(id) } } })),
    })),
  )
