import { api, taken } from '@/shared/api/client'

import type { Outgoing } from './outgoing'

/** Each change as the request that carries it. */
const key = (k: string) => ({ params: { path: { key: k } } })

export function deliver(o: Outgoing): Promise<unknown> {
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
