import createClient from 'openapi-fetch'

import { reach, taken } from '@/shared/api/client'
import type { paths } from '@/shared/api/schema'

import type { Outgoing } from './outgoing'

const at = (k: string) => ({ params: { path: { key: k } } })
type Api = ReturnType<typeof createClient<paths>>
type Named<K> = Outgoing extends infer O
  ? O extends { kind: infer Kinds }
    ? K extends Kinds
      ? O
      : never
    : never
  : never
type Carriers = { [K in Outgoing['kind']]: (api: Api, o: Named<K>) => Promise<unknown> }
const edit = <C, S>(o: { changes: C; seen: S }) => ({ changes: o.changes, seen: o.seen })
const reading = (o: { subject: 'blocks' | 'units'; of: string; reading: string }) => ({
  params: { path: { subject: o.subject, key: o.of, reading: o.reading } },
})
const savedParams = (o: { subject: 'blocks' | 'units'; of: string; saved: string }) => ({
  params: { path: { subject: o.subject, key: o.of, saved: o.saved } },
})

const readingParams = (o: { block: string; reading: string }) => ({
  params: { path: { key: o.block, reading: o.reading } },
})

const seamTest = (o: { set_up: string; test: string }) => ({
  params: { path: { key: o.set_up, reading: o.test } },
})

const blade = (o: { blade: string; on: string }) => ({ params: { path: { key: o.blade, day: o.on } } })

/** Sent again under its name, nothing is made twice: an answer that never comes does not hold all that waits behind it. */
const patience = 30_000
const reachSoon = (request: Request) => reach(new Request(request, { signal: AbortSignal.timeout(patience) }))

/** Each change as the request that carries it. */
const carriers: Carriers = {
  change_project: (api, o) => taken(api.PATCH('/api/projects/{key}', { ...at(o.project), body: edit(o) })),
  change_unit: (api, o) => taken(api.PATCH('/api/units/{key}', { ...at(o.unit), body: edit(o) })),
  change_fabric: (api, o) => taken(api.PATCH('/api/fabrics/{key}', { ...at(o.fabric), body: edit(o) })),
  change_workroom: (api, o) => taken(api.PATCH('/api/workroom', { body: edit(o) })),
  put_ruler: (api, o) => taken(api.PUT('/api/rulers/{key}', { ...at(o.ruler), body: edit(o) })),
  delete_ruler: (api, o) => taken(api.DELETE('/api/rulers/{key}', at(o.ruler))),
  restore_ruler: (api, o) => taken(api.POST('/api/rulers/{key}/restore', at(o.ruler))),
  add_unit: (api, o) => {
    const body = { id: o.unit, kind: o.of, copy_of: o.copyOf ?? null }
    return taken(api.POST('/api/projects/{key}/units', { ...at(o.project), body }))
  },
  delete_unit: (api, o) => taken(api.DELETE('/api/units/{key}', at(o.unit))),
  restore_unit: (api, o) => taken(api.POST('/api/units/{key}/restore', at(o.unit))),
  put_fabric: (api, o) => {
    const params = { path: { key: o.project, fabric: o.fabric } }
    return taken(api.PUT('/api/projects/{key}/fabrics/{fabric}', { params, body: edit(o) }))
  },
  delete_fabric: (api, o) => taken(api.DELETE('/api/fabrics/{key}', at(o.fabric))),
  exchange_fabrics: (api, o) =>
    taken(
      api.POST('/api/projects/{key}/fabrics/exchange', {
        ...at(o.project),
        body: { one: o.one, other: o.other },
      }),
    ),
  restore_fabric: (api, o) => taken(api.POST('/api/fabrics/{key}/restore', at(o.fabric))),
  begin_project: (api, o) => {
    const { name, fabrics, unit, block, quilt } = o
    return taken(api.POST('/api/beginnings', { body: { id: o.project, name, fabrics, unit, block, quilt } }))
  },
  duplicate_project: (api, o) =>
    taken(api.POST('/api/projects/{key}/duplicates', { ...at(o.source), body: { id: o.project } })),
  open_state: (api, o) =>
    taken(
      api.POST('/api/projects/{key}/history/{state}/copy', {
        params: { path: { key: o.source, state: o.state } },
        body: { id: o.project },
      }),
    ),
  delete_project: (api, o) => taken(api.DELETE('/api/projects/{key}', at(o.project))),
  restore_project: (api, o) => taken(api.POST('/api/projects/{key}/restore', at(o.project))),
  archive_project: (api, o) => taken(api.POST('/api/projects/{key}/archived', at(o.project))),
  unarchive_project: (api, o) => taken(api.DELETE('/api/projects/{key}/archived', at(o.project))),
  put_stock: (api, o) => {
    const params = { path: { key: o.fabric, stock: o.stock } }
    return taken(api.PUT('/api/fabrics/{key}/stock/{stock}', { params, body: edit(o) }))
  },
  delete_stock: (api, o) => taken(api.DELETE('/api/stock/{key}', at(o.stock))),
  restore_stock: (api, o) => taken(api.POST('/api/stock/{key}/restore', at(o.stock))),
  shelve_stock: (api, o) =>
    taken(api.POST('/api/stock/{key}/shelved', { ...at(o.stock), body: { count: o.count, rest: o.rest } })),
  take_shelf_stock: (api, o) => {
    const params = { path: { key: o.fabric, stock: o.stock } }
    const body = { count: o.count, rest: o.rest }
    return taken(api.POST('/api/fabrics/{key}/shelf/{stock}', { params, body }))
  },
  round_sizes: (api, o) => taken(api.POST('/api/projects/{key}/rounded', at(o.project))),
  unround_sizes: (api, o) => taken(api.DELETE('/api/projects/{key}/rounded', at(o.project))),
  keep_spares: (api, o) => taken(api.POST('/api/units/{key}/spares/kept', at(o.unit))),
  use_spares: (api, o) =>
    taken(api.POST('/api/units/{key}/spares/used', { ...at(o.unit), body: { stock: o.stock } })),
  put_on_shelf: (api, o) => taken(api.PUT('/api/shelf/{key}', { ...at(o.shelved), body: edit(o) })),
  delete_shelved: (api, o) => taken(api.DELETE('/api/shelf/{key}', at(o.shelved))),
  restore_shelved: (api, o) => taken(api.POST('/api/shelf/{key}/restore', at(o.shelved))),
  put_triangles_by: (api, o) => {
    const params = { path: { key: o.project, letter: o.letter } }
    return taken(api.POST('/api/projects/{key}/cutting/piles/{letter}/triangles', { params }))
  },
  tick_strip: (api, o) => {
    const body = { number: o.number, done: o.done, plan: o.plan }
    return taken(api.POST('/api/projects/{key}/cutting/strips', { ...at(o.project), body }))
  },
  change_pile: (api, o) => {
    const params = { path: { key: o.project, letter: o.letter } }
    return taken(api.PATCH('/api/projects/{key}/cutting/piles/{letter}', { params, body: edit(o) }))
  },
  keep_over: (api, o) => {
    const params = { path: { key: o.project, letter: o.letter } }
    return taken(api.POST('/api/projects/{key}/cutting/piles/{letter}/scraps', { params }))
  },
  undo_cutting: (api, o) => taken(api.POST('/api/projects/{key}/cutting/undo', at(o.project))),
  mark_cut: (api, o) => taken(api.POST('/api/projects/{key}/cutting/cut', at(o.project))),
  put_block: (api, o) => {
    const params = { path: { key: o.project, block: o.block } }
    const body = { start: o.start ?? '', ...edit(o) }
    return taken(api.PUT('/api/projects/{key}/blocks/{block}', { params, body }))
  },
  edit_block: (api, o) =>
    taken(api.POST('/api/blocks/{key}/edits', { ...at(o.block), body: { edit: o.edit } })),
  delete_block: (api, o) => taken(api.DELETE('/api/blocks/{key}', at(o.block))),
  restore_block: (api, o) => taken(api.POST('/api/blocks/{key}/restore', at(o.block))),
  change_quilt: (api, o) =>
    taken(api.PATCH('/api/projects/{key}/quilt', { ...at(o.project), body: edit(o) })),
  take_up_scraps: (api, o) => taken(api.DELETE('/api/projects/{key}/scraps', at(o.project))),
  keep_own: (api, o) => taken(api.PUT('/api/library/{key}', { ...at(o.library), body: { block: o.block } })),
  delete_own: (api, o) => taken(api.DELETE('/api/library/{key}', at(o.library))),
  restore_own: (api, o) => taken(api.POST('/api/library/{key}/restore', at(o.library))),
  change_handling: (api, o) => taken(api.PATCH('/api/units/{key}/bench', { ...at(o.unit), body: edit(o) })),
  put_done: (api, o) => {
    const params = { path: { key: o.project, done: o.done } }
    return taken(api.PUT('/api/projects/{key}/done/{done}', { params, body: o.body }))
  },
  take_back: (api, o) => {
    const params = { path: { key: o.project, done: o.done } }
    return taken(api.DELETE('/api/projects/{key}/done/{done}', { params }))
  },
  put_reading: (api, o) =>
    taken(api.PUT('/api/{subject}/{key}/readings/{reading}', { ...reading(o), body: edit(o) })),
  delete_reading: (api, o) => taken(api.DELETE('/api/{subject}/{key}/readings/{reading}', reading(o))),
  restore_reading: (api, o) => taken(api.POST('/api/{subject}/{key}/readings/{reading}/restore', reading(o))),
  put_measured: (api, o) =>
    taken(api.PUT('/api/blocks/{key}/measured/{reading}', { ...readingParams(o), body: edit(o) })),
  put_top_measured: (api, o) => {
    const params = { path: { key: o.project, place: o.place } }
    return taken(api.PUT('/api/projects/{key}/measured/{place}', { params, body: edit(o) }))
  },
  delete_measured: (api, o) => taken(api.DELETE('/api/blocks/{key}/measured/{reading}', readingParams(o))),
  save_diagnosis: (api, o) => taken(api.PUT('/api/{subject}/{key}/saved/{saved}', savedParams(o))),
  change_saved: (api, o) =>
    taken(api.PATCH('/api/{subject}/{key}/saved/{saved}', { ...savedParams(o), body: edit(o) })),
  put_set_up: (api, o) =>
    taken(
      api.PUT('/api/set-ups/{key}', {
        ...at(o.set_up),
        body: { ...edit(o), came_from: o.came_from ?? null },
      }),
    ),
  use_set_up: (api, o) => taken(api.POST('/api/set-ups/{key}/use', at(o.set_up))),
  delete_set_up: (api, o) => taken(api.DELETE('/api/set-ups/{key}', at(o.set_up))),
  restore_set_up: (api, o) => taken(api.POST('/api/set-ups/{key}/restore', at(o.set_up))),
  put_test: (api, o) =>
    taken(api.PUT('/api/set-ups/{key}/tests/{reading}', { ...seamTest(o), body: edit(o) })),
  delete_test: (api, o) => taken(api.DELETE('/api/set-ups/{key}/tests/{reading}', seamTest(o))),
  restore_test: (api, o) => taken(api.POST('/api/set-ups/{key}/tests/{reading}/restore', seamTest(o))),
  leave_day_out: (api, o) => taken(api.PUT('/api/records/days/{day}', { params: { path: { day: o.day } } })),
  take_day_back: (api, o) =>
    taken(api.DELETE('/api/records/days/{day}', { params: { path: { day: o.day } } })),
  begin_clock: (api, o) => {
    const body = { project: o.project, stage: o.stage, at: o.at }
    return taken(api.PUT('/api/times/{key}/clock', { ...at(o.time), body }))
  },
  stop_clock: (api, o) => taken(api.POST('/api/times/{key}/clock', { ...at(o.time), body: { at: o.at } })),
  put_time: (api, o) => {
    const { project = null, subject = '' as const, of = null } = o
    return taken(api.PUT('/api/times/{key}', { ...at(o.time), body: { ...edit(o), project, subject, of } }))
  },
  delete_time: (api, o) => taken(api.DELETE('/api/times/{key}', at(o.time))),
  restore_time: (api, o) => taken(api.POST('/api/times/{key}/restore', at(o.time))),
  put_blade: (api, o) => taken(api.PUT('/api/blades/{key}/{day}', blade(o))),
  delete_blade: (api, o) => taken(api.DELETE('/api/blades/{key}/{day}', blade(o))),
  put_free: (api, o) => taken(api.PUT('/api/evenings/free/{key}', { ...at(o.free), body: edit(o) })),
  delete_free: (api, o) => taken(api.DELETE('/api/evenings/free/{key}', at(o.free))),
  restore_free: (api, o) => taken(api.POST('/api/evenings/free/{key}/restore', at(o.free))),
  put_busy_day: (api, o) => taken(api.PUT('/api/evenings/busy/{day}', { params: { path: { day: o.on } } })),
  delete_busy_day: (api, o) =>
    taken(api.DELETE('/api/evenings/busy/{day}', { params: { path: { day: o.on } } })),
  leave_calendar: (api, o) =>
    taken(api.DELETE('/api/evenings/calendars', { params: { query: { name: o.calendar } } })),
  change_schedule: (api, o) =>
    taken(api.PATCH('/api/projects/{key}/schedule', { ...at(o.project), body: edit(o) })),
  put_entry: (api, o) => {
    const body = { ...edit(o), project: o.project ?? null, unit: o.unit ?? null }
    return taken(api.PUT('/api/log/{key}', { ...at(o.entry), body }))
  },
  delete_entry: (api, o) => taken(api.DELETE('/api/log/{key}', at(o.entry))),
  restore_entry: (api, o) => taken(api.POST('/api/log/{key}/restore', at(o.entry))),
  put_photo: (api, o) => {
    const params = { path: { key: o.entry, photo: o.photo } }
    return taken(
      api.PUT('/api/log/{key}/photos/{photo}', { params, body: { image: o.image, caption: o.caption } }),
    )
  },
  delete_photo: (api, o) => taken(api.DELETE('/api/photos/{key}', at(o.photo))),
  restore_photo: (api, o) => taken(api.POST('/api/photos/{key}/restore', at(o.photo))),
  say_why: (api, o) => {
    const params = { path: { key: o.project, done: o.done } }
    return taken(api.PATCH('/api/projects/{key}/done/{done}/why', { params, body: edit(o) }))
  },
  keep_plan: (api) => taken(api.POST('/api/evenings/kept')),
}

/** Sends a change under its name: the server makes a change of one name once. Undefined when it was made before. */
export function deliver(o: Outgoing, id: string): Promise<unknown> {
  const api = createClient<paths>({ baseUrl: '/', fetch: reachSoon, headers: { 'Change-Id': id } })
  const carry = carriers[o.kind] as (api: Api, o: Outgoing) => Promise<unknown>
  return carry(api, o)
}
