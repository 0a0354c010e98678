import { keepPreviousData, queryOptions, useQuery } from '@tanstack/vue-query'
import { computed, type MaybeRefOrGetter, toValue } from 'vue'

import { api, type Schemas, taken } from '@/shared/api/client'
import { onItsWay } from '@/shared/offline/typed'

export type Sheet = Schemas['Sheet']
export type SavedBlock = Schemas['SavedBlock']
export type View = Schemas['BlockView']
/** A place and what lies there. */
export type Spot = Schemas['Spot'] & Schemas['Lying']
export type Pattern = Schemas['PatternWire']

const told = new WeakMap<View, Spot[]>()

/** The places of a layout with what lies in them: what lies in many is sent once. */
export function spotsOf(view: View): Spot[] {
  const known = told.get(view) ?? view.spots.map((s) => ({ ...s, ...view.lying[s.lies]! }))
  told.set(view, known)
  return known
}

const key = (k: string) => ({ params: { path: { key: k } } })

export const useSheet = (project: MaybeRefOrGetter<string>) =>
  useQuery(
    computed(() => ({
      queryKey: ['blocks', toValue(project)],
      queryFn: () => taken(api.GET('/api/projects/{key}/blocks', key(toValue(project)))),
    })),
  )

const libraryQuery = queryOptions({
  queryKey: ['library'],
  queryFn: () => taken(api.GET('/api/library')),
  staleTime: 60_000,
})
export const useLibrary = () => useQuery(libraryQuery)

/** As it is chosen, also while that is still on its way to the server: both are asked at once. */
function chosen({ id, order, pressing }: SavedBlock) {
  const coming = onItsWay({ thing: () => `block ${id}` })
  return {
    order: 'order' in coming ? (coming.order as string) : order,
    wishes: JSON.stringify('pressing' in coming ? coming.pressing : pressing),
  }
}

/** What was there before, until the new one is: of the same block only. */
const ofTheSame =
  <T>(block: string) =>
  (old: T | undefined, query?: { queryKey: readonly unknown[] }) =>
    query?.queryKey[1] === block ? old : undefined

export const useJoining = (block: () => SavedBlock) =>
  useQuery(
    computed(() => {
      const { order } = chosen(block())
      const params = { ...key(block().id).params, query: { order } }
      return {
        queryKey: ['joining', block().id, order],
        queryFn: () => taken(api.GET('/api/blocks/{key}/joining', { params })),
        placeholderData: ofTheSame<Schemas['Joined']>(block().id),
        retry: false,
      }
    }),
  )

export const usePressing = (block: () => SavedBlock) =>
  useQuery(
    computed(() => {
      const query = chosen(block())
      const params = { ...key(block().id).params, query }
      return {
        queryKey: ['pressing', block().id, query],
        queryFn: () => taken(api.GET('/api/blocks/{key}/pressing', { params })),
        placeholderData: ofTheSame<Schemas['Pressed']>(block().id),
        retry: false,
      }
    }),
  )

export const useCounts = (project: MaybeRefOrGetter<string>) =>
  useQuery(
    computed(() => ({
      queryKey: ['counts', toValue(project)],
      queryFn: () => taken(api.GET('/api/projects/{key}/counts', key(toValue(project)))),
      placeholderData: keepPreviousData,
    })),
  )

export const useLooking = (block: MaybeRefOrGetter<string>, asked: () => Schemas['LookingRequestRequest']) =>
  useQuery(
    computed(() => ({
      queryKey: ['looking', toValue(block), asked()],
      queryFn: () => taken(api.POST('/api/blocks/{key}/looking', { ...key(toValue(block)), body: asked() })),
      placeholderData: keepPreviousData,
      retry: false,
    })),
  )

export const useScrapPlaces = (project: MaybeRefOrGetter<string>, role: () => string) =>
  useQuery(
    computed(() => ({
      queryKey: ['scraps', toValue(project), role()],
      queryFn: () =>
        taken(
          api.GET('/api/projects/{key}/scraps', {
            params: { path: { key: toValue(project) }, query: { role: role() } },
          }),
        ),
      enabled: !!role(),
      placeholderData: keepPreviousData,
      retry: false,
    })),
  )

/** A layout changed by the core; nothing is saved by asking. */
export const look = (project: string, body: Schemas['LookRequestRequest']): Promise<View> =>
  taken(api.POST('/api/projects/{key}/look', { ...key(project), body }))

export const findTurned = (block: string, seen: Pattern) =>
  taken(api.POST('/api/blocks/{key}/turned', { ...key(block), body: { seen } }))

export const layScraps = (project: string, body: Schemas['ScrapsRequestRequest']) =>
  taken(api.POST('/api/projects/{key}/scraps', { ...key(project), body }))

export const useBeside = (project: MaybeRefOrGetter<string>) =>
  useQuery(
    computed(() => ({
      queryKey: ['beside', toValue(project)],
      queryFn: () => taken(api.GET('/api/projects/{key}/quilt/beside', key(toValue(project)))),
    })),
  )

export const laySampler = (project: string, body: Schemas['SamplerRequest']) =>
  taken(api.POST('/api/projects/{key}/quilt/sampler', { ...key(project), body }))

export const laySashing = (project: string, body: Schemas['SashingRequest']) =>
  taken(api.POST('/api/projects/{key}/quilt/sashing', { ...key(project), body }))

/** A block from a file of its own format; the core reads and refuses it. */
export const takeBlock = (project: string, block: string, data: Schemas['PatternFile']) =>
  taken(
    api.PUT('/api/projects/{key}/blocks/{block}/import', {
      params: { path: { key: project, block } },
      body: data,
    }),
  )
