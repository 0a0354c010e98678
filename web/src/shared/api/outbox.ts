import { persistQueryClient } from '@tanstack/query-persist-client-core'
import { createSyncStoragePersister } from '@tanstack/query-sync-storage-persister'
import { MutationCache, QueryClient, useMutation, useMutationState } from '@tanstack/vue-query'
import { computed, reactive, shallowRef } from 'vue'

import { api, Refusal, ServerAway, taken, type Schemas } from './client'

/** Fields that are set, and what was last seen in them. */
interface EditOf<P> {
  changes: P
  seen: P
}
type Patches = {
  change_project: Schemas['ProjectPatchRequest']
  change_unit: Schemas['UnitPatchRequest']
  change_fabric: Schemas['FabricPatchRequest']
  change_workroom: Schemas['WorkroomPatchRequest']
  put_ruler: Schemas['RulerPatchRequest']
  put_fabric: Schemas['FabricPatchRequest']
  put_block: Schemas['BlockPatchRequest']
  change_quilt: Schemas['QuiltPatchRequest']
  put_stock: Schemas['StockPatchRequest']
  put_reading: Schemas['ReadingPatchRequest']
  change_saved: Schemas['SavedPatchRequest']
}
type Sets<K extends keyof Patches> = { kind: K } & EditOf<Patches[K]>

/** What readings are of: a block or a kind of unit. */
export interface Of {
  subject: 'blocks' | 'units'
  of: string
}

/** Everything the quilter can change, as plain data: kept in this browser until the server has it. */
export type Outgoing =
  | (Sets<'change_project'> & { project: string })
  | (Sets<'change_unit'> & { project: string; unit: string })
  | (Sets<'change_fabric'> & { project: string; fabric: string })
  | Sets<'change_workroom'>
  | (Sets<'put_ruler'> & { ruler: string })
  | { kind: 'delete_ruler' | 'restore_ruler'; ruler: string }
  | { kind: 'add_unit'; project: string; unit: string; of: string; copyOf?: string }
  | { kind: 'delete_unit' | 'restore_unit'; project: string; unit: string }
  | (Sets<'put_fabric'> & { project: string; fabric: string })
  | { kind: 'delete_fabric'; project: string; fabric: string }
  | { kind: 'create_project'; project: string; name?: string }
  | { kind: 'duplicate_project'; project: string; source: string }
  | { kind: 'delete_project' | 'restore_project' | 'archive_project' | 'unarchive_project'; project: string }
  | (Sets<'put_block'> & { project: string; block: string; start?: string })
  | { kind: 'delete_block' | 'restore_block'; project: string; block: string }
  | (Sets<'change_quilt'> & { project: string })
  | (Sets<'put_stock'> & { project: string; fabric: string; stock: string })
  | { kind: 'delete_stock' | 'restore_stock'; project: string; stock: string }
  | (Sets<'put_reading'> & { reading: string } & Of)
  | ({ kind: 'delete_reading' | 'restore_reading'; reading: string } & Of)
  | ({ kind: 'save_diagnosis'; saved: string } & Of)
  | (Sets<'change_saved'> & { saved: string } & Of)

export interface Clash {
  outgoing: Extract<Outgoing, { changes: unknown }>
  fields: { field: string; here: string; mine: string }[]
}

const key = (k: string) => ({ params: { path: { key: k } } })

function deliver(o: Outgoing): Promise<unknown> {
  switch (o.kind) {
    case 'change_project':
      return taken(
        api.PATCH('/api/projects/{key}', { ...key(o.project), body: { changes: o.changes, seen: o.seen } }),
      )
    case 'change_unit':
      return taken(
        api.PATCH('/api/units/{key}', { ...key(o.unit), body: { changes: o.changes, seen: o.seen } }),
      )
    case 'change_fabric':
      return taken(
        api.PATCH('/api/fabrics/{key}', { ...key(o.fabric), body: { changes: o.changes, seen: o.seen } }),
      )
    case 'change_workroom':
      return taken(api.PATCH('/api/workroom', { body: { changes: o.changes, seen: o.seen } }))
    case 'put_ruler':
      return taken(
        api.PUT('/api/rulers/{key}', { ...key(o.ruler), body: { changes: o.changes, seen: o.seen } }),
      )
    case 'delete_ruler':
      return taken(api.DELETE('/api/rulers/{key}', key(o.ruler)))
    case 'restore_ruler':
      return taken(api.POST('/api/rulers/{key}/restore', key(o.ruler)))
    case 'add_unit':
      return taken(
        api.POST('/api/projects/{key}/units', {
          ...key(o.project),
          body: { id: o.unit, kind: o.of, copy_of: o.copyOf ?? null },
        }),
      )
    case 'delete_unit':
      return taken(api.DELETE('/api/units/{key}', key(o.unit)))
    case 'restore_unit':
      return taken(api.POST('/api/units/{key}/restore', key(o.unit)))
    case 'put_fabric':
      return taken(
        api.PUT('/api/projects/{key}/fabrics/{fabric}', {
          params: { path: { key: o.project, fabric: o.fabric } },
          body: { changes: o.changes, seen: o.seen },
        }),
      )
    case 'delete_fabric':
      return taken(api.DELETE('/api/fabrics/{key}', key(o.fabric)))
    case 'create_project':
      return taken(api.POST('/api/projects', { body: { id: o.project, name: o.name ?? '' } }))
    case 'duplicate_project':
      return taken(api.POST('/api/projects/{key}/duplicates', { ...key(o.source), body: { id: o.project } }))
    case 'delete_project':
      return taken(api.DELETE('/api/projects/{key}', key(o.project)))
    case 'restore_project':
      return taken(api.POST('/api/projects/{key}/restore', key(o.project)))
    case 'archive_project':
      return taken(api.POST('/api/projects/{key}/archived', key(o.project)))
    case 'unarchive_project':
      return taken(api.DELETE('/api/projects/{key}/archived', key(o.project)))
    case 'put_stock':
      return taken(
        api.PUT('/api/fabrics/{key}/stock/{stock}', {
          params: { path: { key: o.fabric, stock: o.stock } },
          body: { changes: o.changes, seen: o.seen },
        }),
      )
    case 'delete_stock':
      return taken(api.DELETE('/api/stock/{key}', key(o.stock)))
    case 'restore_stock':
      return taken(api.POST('/api/stock/{key}/restore', key(o.stock)))
    case 'put_block':
      return taken(
        api.PUT('/api/projects/{key}/blocks/{block}', {
          params: { path: { key: o.project, block: o.block } },
          body: { start: o.start ?? '', changes: o.changes, seen: o.seen },
        }),
      )
    case 'delete_block':
      return taken(api.DELETE('/api/blocks/{key}', key(o.block)))
    case 'restore_block':
      return taken(api.POST('/api/blocks/{key}/restore', key(o.block)))
    case 'change_quilt':
      return taken(
        api.PATCH('/api/projects/{key}/quilt', {
          ...key(o.project),
          body: { changes: o.changes, seen: o.seen },
        }),
      )
    case 'put_reading':
      return taken(
        api.PUT('/api/{subject}/{key}/readings/{reading}', {
          params: { path: { subject: o.subject, key: o.of, reading: o.reading } },
          body: { changes: o.changes, seen: o.seen },
        }),
      )
    case 'delete_reading':
      return taken(
        api.DELETE('/api/{subject}/{key}/readings/{reading}', {
          params: { path: { subject: o.subject, key: o.of, reading: o.reading } },
        }),
      )
    case 'restore_reading':
      return taken(
        api.POST('/api/{subject}/{key}/readings/{reading}/restore', {
          params: { path: { subject: o.subject, key: o.of, reading: o.reading } },
        }),
      )
    case 'save_diagnosis':
      return taken(
        api.PUT('/api/{subject}/{key}/saved/{saved}', {
          params: { path: { subject: o.subject, key: o.of, saved: o.saved } },
        }),
      )
    case 'change_saved':
      return taken(
        api.PATCH('/api/{subject}/{key}/saved/{saved}', {
          params: { path: { subject: o.subject, key: o.of, saved: o.saved } },
          body: { changes: o.changes, seen: o.seen },
        }),
      )
  }
}

/** Whose refusals are shown where they were typed; sent from an earlier page, they are shown on top like all others. */
const inPlace = new WeakSet<Outgoing>()

/** Changes another window made first, waiting for a choice; and refusals of what was sent later. */
export const clash = shallowRef<Clash | null>(null)
export const refused = reactive<{ outgoing: Outgoing; refusal: Refusal }[]>([])

/** What the server answered stands; a reading of it that set out before is asked again, since it may be the older. */
function settle(client: QueryClient, queryKey: string[], data: unknown) {
  client.setQueryData(queryKey, data)
  if (client.isFetching({ queryKey, exact: true })) void client.invalidateQueries({ queryKey, exact: true })
}

function keep(client: QueryClient, o: Outgoing, data: unknown) {
  if ('subject' in o) {
    // One pool: what is read on a unit counts for every block that holds it. The answer is drawn as by default; a page that
    // looks at it otherwise, and every other subject, asks again.
    client.setQueryData(['diagnosis', o.subject, o.of, 4, ''], data)
    void client.invalidateQueries({ queryKey: ['diagnosis'] })
    for (const room of ['plan', 'compare', 'trim']) void client.invalidateQueries({ queryKey: [room] })
    return
  }
  if (o.kind === 'change_workroom' || o.kind.endsWith('ruler')) {
    settle(client, ['workroom'], data)
    for (const room of ['trim', 'compare']) void client.invalidateQueries({ queryKey: [room] })
    return
  }
  if (o.kind.endsWith('stock')) {
    const sheet = data as Schemas['CuttingSheet']
    settle(client, ['cutting', sheet.project], sheet)
    void client.invalidateQueries({ queryKey: ['buying'] })
    return
  }
  if (o.kind.endsWith('block') || o.kind === 'change_quilt') {
    const sheet = data as Schemas['Sheet']
    settle(client, ['blocks', sheet.project], sheet)
    for (const room of [
      'project',
      'diagnosis',
      'what-if',
      'joining',
      'pressing',
      'looking',
      'counts',
      'scraps',
      'cutting',
      'buying',
    ])
      void client.invalidateQueries({ queryKey: [room] })
    return
  }
  const project = data as Schemas['Project']
  settle(client, ['project', project.id], project)
  for (const room of [
    'projects',
    'blocks',
    'diagnosis',
    'what-if',
    'counts',
    'pressing',
    'cutting',
    'buying',
  ])
    void client.invalidateQueries({ queryKey: [room] })
  for (const unit of project.units) void client.invalidateQueries({ queryKey: ['trim', unit.id] })
}

const shown = (value: unknown): string =>
  value === null || value === undefined
    ? ''
    : typeof value === 'object' && 'layout' in value
      ? (value.layout as string[]).join(' / ')
      : Array.isArray(value)
        ? value.join(', ')
        : typeof value === 'object'
          ? Object.entries(value)
              .map(([name, size]) => `${name} ${String(size)}`)
              .join(', ')
          : String(value)

function refuse(client: QueryClient, o: Outgoing, error: Error) {
  if (!(error instanceof Refusal)) return
  if (error.problem.code === 'changed_elsewhere' && 'changes' in o) {
    const fields = error.problem.errors.map((e) => ({
      field: e.field,
      here: e.values.here ?? '',
      mine: shown((o.changes as Record<string, unknown>)[e.field]),
    }))
    clash.value = { outgoing: o, fields }
    if ('project' in o) void client.invalidateQueries({ queryKey: ['project', o.project] })
    return
  }
  if (!inPlace.has(o)) refused.push({ outgoing: o, refusal: error })
}

const isSend = (mutationKey?: readonly unknown[]) => mutationKey?.[0] === 'send'

/** The query client, its outbox read back from this browser and emptied as soon as the server answers. */
export function openOutbox(): QueryClient {
  const mutationCache: MutationCache = new MutationCache({
    onSuccess: (data, o, _c, m) => isSend(m.options.mutationKey) && keep(client, o as Outgoing, data),
    onError: (error, o, _c, m) => isSend(m.options.mutationKey) && refuse(client, o as Outgoing, error),
  })
  const client: QueryClient = new QueryClient({
    mutationCache,
    defaultOptions: {
      queries: { staleTime: 5_000, retry: (n, e) => e instanceof ServerAway && n < 100, retryDelay: 500 },
    },
  })
  client.setMutationDefaults(['send'], {
    mutationFn: (o: unknown) => deliver(o as Outgoing),
    scope: { id: 'outbox' },
    retry: (_n: number, e: Error) => e instanceof ServerAway,
    retryDelay: 300,
  })
  const persister = createSyncStoragePersister({
    storage: window.localStorage,
    key: 'entretoile.outbox',
    throttleTime: 0,
    // What was under way when the page went is sent again; the server takes a second copy as the same one.
    serialize: (kept) => {
      for (const m of kept.clientState.mutations) m.state.isPaused = true
      return JSON.stringify(kept)
    },
  })
  const [, restored] = persistQueryClient({
    // Same class; the Vue package only hides its private parts behind a type of its own.
    queryClient: client as unknown as Parameters<typeof persistQueryClient>[0]['queryClient'],
    persister,
    maxAge: Infinity,
    dehydrateOptions: {
      shouldDehydrateQuery: () => false,
      shouldDehydrateMutation: (m) => m.state.status === 'pending',
    },
  })
  void restored.then(() => client.resumePausedMutations())
  return client
}

/** Hand something over to be sent, now or when the server is back. */
export function useOutbox() {
  const { mutate, mutateAsync } = useMutation<unknown, Error, Outgoing>({ mutationKey: ['send'] })
  /** Sent; a refusal comes back to the caller, who shows it beside the field. */
  const tried = (o: Outgoing) => {
    inPlace.add(o)
    return mutateAsync(o)
  }
  return { send: (o: Outgoing) => mutate(o), sent: (o: Outgoing) => mutateAsync(o), tried }
}

/** What the server does not have yet. */
export function useWaiting() {
  const states = useMutationState<Outgoing>({
    filters: { mutationKey: ['send'], status: 'pending' },
    select: (m) => m.state.variables as Outgoing,
  })
  return computed(() => states.value)
}
