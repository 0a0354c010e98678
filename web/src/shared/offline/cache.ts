import type { QueryClient } from '@tanstack/vue-query'

import type { Schemas } from '@/shared/api/client'

import type { Outgoing } from './outgoing'

type Kind = Outgoing['kind']
type Room =
  | 'bench'
  | 'workroom'
  | 'project'
  | 'blocks'
  | 'cutting'
  | 'shelf'
  | 'diagnosis'
  | 'library'
  | 'records'
  | 'hands'
  | 'times'
  | 'evenings'
  | 'log'
  | 'measured'
  | 'top'

const ofCutting = new Set<Kind>([
  'tick_strip',
  'mark_cut',
  'undo_cutting',
  'change_pile',
  'keep_over',
  'put_triangles_by',
  'keep_spares',
  'use_spares',
])

const roomOf = (kind: Kind): Room => {
  if (kind === 'change_workroom' || kind.endsWith('ruler')) return 'workroom'
  if (kind === 'put_on_shelf' || kind.endsWith('shelved')) return 'shelf'
  if (kind === 'put_done' || kind === 'take_back' || kind === 'change_handling') return 'bench'
  if (kind.endsWith('stock') || ofCutting.has(kind)) return 'cutting'
  if (kind.endsWith('block') || kind === 'change_quilt' || kind === 'take_up_scraps') return 'blocks'
  if (kind.endsWith('reading') || kind.endsWith('saved') || kind === 'save_diagnosis') return 'diagnosis'
  if (kind.endsWith('own')) return 'library'
  if (kind.endsWith('set_up') || kind.endsWith('_test')) return 'records'
  if (kind.endsWith('_entry') || kind.endsWith('_photo') || kind === 'say_why') return 'log'
  if (kind === 'put_top_measured') return 'top'
  if (kind.endsWith('_measured')) return 'measured'
  if (kind.endsWith('_clock') || kind.endsWith('_time') || kind.endsWith('_blade')) return 'times'
  if (
    kind.endsWith('_free') ||
    kind.endsWith('busy_day') ||
    kind === 'leave_calendar' ||
    kind === 'change_schedule' ||
    kind === 'keep_plan'
  )
    return 'evenings'
  if (kind.endsWith('day_out') || kind.endsWith('day_back')) return 'hands'
  return 'project'
}

const ofABlock = [
  'joining',
  'pressing',
  'looking',
  'counts',
  'scraps',
  'beside',
  'what-if',
  'bench',
  'unit-bench',
  'block-bench',
  'quilt-bench',
  'diagnosis',
  'working',
  'cutting',
  'buying',
  'measured',
  'evenings',
  'project-time',
]
/** Minutes and evenings: what is left changes with what is done, and with every plan. */
const ofTime = ['times', 'evenings', 'project-time']
/** What else on screen rests on a change in a room, and is asked again when it is next looked at. */
const restsOn: Record<Room, string[]> = {
  workroom: ['trim', 'compare', 'ticket', 'times'],
  bench: ['standing', 'ticket', 'log', 'story', ...ofTime],
  cutting: ['buying', 'standing', 'shelf', 'spares', 'bench', ...ofTime],
  shelf: [],
  blocks: ['project', 'ticket', 'projects', 'standing', ...ofABlock],
  diagnosis: [
    'standing',
    'measured',
    'working',
    'plan',
    'compare',
    'trim',
    'lot',
    'hands',
    'forecasts',
    'kept-diagnoses',
  ],
  library: [],
  records: ['hands', 'forecasts', 'diagnosis', 'working', 'plan', 'compare', 'trim', 'times'],
  hands: ['forecasts', 'diagnosis', 'working', 'plan', 'compare', 'trim', ...ofTime],
  times: ['evenings', 'project-time'],
  evenings: ['project-time'],
  log: ['log', 'story'],
  measured: ['standing', 'diagnosis', 'working'],
  // The plain pieces of the quilt are cut to it.
  top: [
    'blocks',
    'standing',
    'ticket',
    'quilt-bench',
    'block-bench',
    'bench',
    'cutting',
    'buying',
    'evenings',
    'project-time',
  ],
  project: ['projects', 'standing', 'shelf', 'blocks', 'trim', 'ticket', ...ofABlock],
}

/**
 * Asked again, also what is being read for the first time: a reading that set out before may be the older, and one without
 * data is not begun anew by being called out of date.
 */
function askAgain(client: QueryClient, queryKey: readonly unknown[]) {
  const first = client
    .getQueryCache()
    .findAll({ queryKey, fetchStatus: 'fetching' })
    .filter((q) => q.state.data === undefined)
  void client.invalidateQueries({ queryKey })
  for (const q of first)
    void q
      .fetch()
      .catch(() => undefined)
      .then(() => client.invalidateQueries({ queryKey: q.queryKey, exact: true }))
}

const askOne = (client: QueryClient, key: string) => askAgain(client, [key])

/** Not what one looks at while changing something: the count of the work done, what to buy, other projects. */
const behind = new Set(['bench', 'standing', 'projects', 'shelf', 'buying', 'ticket', 'story', ...ofTime])
/** Milliseconds until that is asked again, so that what is in sight, also in other windows, comes first. */
const pause = 250
const waiting = new Set<string>()
let timer: ReturnType<typeof setTimeout> | undefined

/** Out of date from now on, so that a page that opens asks at once; what is open asks when the pause is over. */
function askBehind(client: QueryClient, key: string) {
  void client.invalidateQueries({ queryKey: [key], refetchType: 'none' })
  waiting.add(key)
  clearTimeout(timer)
  timer = setTimeout(() => {
    for (const k of waiting) askAgain(client, [k])
    waiting.clear()
  }, pause)
}

/** What the server answered stands; a reading of it that set out before is asked again, since it may be the older. */
function stand(client: QueryClient, queryKey: readonly unknown[], data: unknown) {
  client.setQueryData(queryKey, data)
  if (client.isFetching({ queryKey, exact: true })) void client.invalidateQueries({ queryKey, exact: true })
}

/** Puts the answer of a change where it is shown. */
const put: Record<Room, (client: QueryClient, o: Outgoing, data: unknown) => void> = {
  bench(client, o, data) {
    const bench = data as Schemas['Bench']
    if (!('project' in o) || !o.project) return
    stand(client, ['bench', o.project], bench)
    putDone(client, o)
    for (const u of bench.units)
      client.setQueryData<Schemas['UnitBench']>(
        ['unit-bench', u.unit],
        (old) => old && { ...old, tally: u.tally },
      )
  },
  workroom: (client, _o, data) => stand(client, ['workroom'], data),
  cutting(client, _o, data) {
    const sheet = data as Schemas['CuttingSheet']
    stand(client, ['cutting', sheet.project], sheet)
  },
  blocks(client, o, data) {
    if (o.kind === 'edit_block') return putBlock(client, data as Schemas['EditedBlock'])
    if (o.kind === 'change_quilt') return putQuilt(client, data as Schemas['ChangedQuilt'])
    const sheet = data as Schemas['Sheet']
    stand(client, ['blocks', sheet.project], sheet)
  },
  diagnosis(client, o, data) {
    // One pool: what is read on a unit counts for every block that holds it. The answer is drawn as by default; a page
    // that draws it otherwise has its readings at once, and its drawing asked again.
    if (!('subject' in o)) return askOne(client, 'diagnosis')
    const found = data as Schemas['Diagnosis']
    const queryKey = ['diagnosis', o.subject, o.of]
    client.setQueriesData<Schemas['Diagnosis']>(
      { queryKey },
      (old) => old && { ...found, drawing: old.drawing, before: old.before },
    )
    stand(client, [...queryKey, 4, ''], found)
    // What is drawn otherwise, and every other block and row that may hold this reading.
    void client.invalidateQueries({
      predicate: ({ queryKey: k }) =>
        k[0] === 'diagnosis' && !(k[1] === o.subject && k[2] === o.of && k[3] === 4 && k[4] === ''),
    })
  },
  shelf: (client, _o, data) => stand(client, ['shelf'], data),
  library: (client, _o, data) => stand(client, ['library'], data),
  records: (client, _o, data) => stand(client, ['records'], data),
  hands: (client, _o, data) => stand(client, ['hands'], data),
  times(client, _o, data) {
    const { running } = data as Schemas['TimeSheet']
    stand(client, ['times'], data)
    stand(client, ['clock'], { running })
  },
  evenings: (client, _o, data) => stand(client, ['evenings'], data),
  // It may be searched, or on another page: what is on screen is asked again.
  log: () => undefined,
  measured: ofMeasured,
  top: ofMeasured,
  project(client, _o, data) {
    const project = data as Schemas['Project']
    stand(client, ['project', project.id], project)
  },
}

function ofMeasured(client: QueryClient, o: Outgoing, data: unknown) {
  if ('project' in o && o.project) stand(client, ['measured', o.project], data)
}

type Lots = readonly Schemas['Lot'][]

/** A step that was put down, or taken back, in the lots that are shown: the steps and their pictures are not fetched for it. */
function putDone(client: QueryClient, o: Outgoing) {
  if (o.kind === 'change_handling') {
    askAgain(client, ['unit-bench', o.unit])
    return
  }
  if (o.kind === 'put_done' && (o.body.stage === 'spoiled' || o.body.subject === 'quilt')) {
    for (const key of ['unit-bench', 'quilt-bench', 'cutting', 'buying']) askAgain(client, [key])
    return
  }
  if (o.kind === 'take_back') {
    const without = (lots: Lots) =>
      lots.map((l) => ({
        ...l,
        done: l.done
          .map((d) => ({ ...d, keys: d.keys.filter((k) => k !== o.done) }))
          .filter((d) => d.keys.length),
      }))
    changeLots(client, without)
    // It may have been a spoiled unit, or the last thing done of a lot.
    for (const key of ['unit-bench', 'block-bench', 'quilt-bench', 'cutting', 'buying'])
      askAgain(client, [key])
    return
  }
  if (o.kind !== 'put_done' || !o.body.step) return
  const { lot, step } = o.body
  changeLots(
    client,
    (lots) =>
      lots.map((l) => {
        if (l.number !== lot) return l
        const others = l.done.filter((d) => d.step !== step)
        const keys = l.done.find((d) => d.step === step)?.keys.filter((k) => k !== o.done) ?? []
        return { ...l, begun: true, done: [...others, { step: step!, keys: [...keys, o.done] }] }
      }),
    o.body.of ?? '',
  )
}

function changeLots(client: QueryClient, change: (lots: Lots) => Schemas['Lot'][], of?: string) {
  const units = of === undefined ? ['unit-bench'] : ['unit-bench', of]
  const blocks = of === undefined ? ['block-bench'] : ['block-bench', of]
  client.setQueriesData<Schemas['UnitBench']>(
    { queryKey: units },
    (old) => old && { ...old, runs: old.runs.map((r) => ({ ...r, lots: change(r.lots) })) },
  )
  client.setQueriesData<Schemas['BlockBench']>(
    { queryKey: blocks },
    (old) => old && { ...old, lots: change(old.lots) },
  )
}

/** Only the block that changed came back; the quilt and the others are asked again behind it. */
function putBlock(client: QueryClient, edited: Schemas['EditedBlock']) {
  const queryKey = ['blocks', edited.project]
  client.setQueryData<Schemas['Sheet']>(
    queryKey,
    (sheet) =>
      sheet && { ...sheet, blocks: sheet.blocks.map((b) => (b.id === edited.block.id ? edited.block : b)) },
  )
  askAgain(client, queryKey)
}

/** Strips of borders and parts of blocks follow the quilt: they are asked for behind it, unless the blocks came with it. */
function putQuilt(client: QueryClient, { project, blocks, quilt }: Schemas['ChangedQuilt']) {
  const queryKey = ['blocks', project]
  if (blocks) return stand(client, queryKey, { project, blocks, quilt })
  client.setQueryData<Schemas['Sheet']>(queryKey, (sheet) => sheet && { ...sheet, quilt })
  // A reading that set out before may hold the quilt as it was.
  if (client.isFetching({ queryKey, exact: true })) askAgain(client, queryKey)
  else askBehind(client, 'blocks')
}

/**
 * What the answer to a change says of what is on screen, and what has to be asked again. Without an answer a promise
 * of when all of it is read again.
 */
export function keep(client: QueryClient, o: Outgoing, data: unknown): Promise<void> | undefined {
  // It was made before, and the answer lost on the way: everything in sight is asked again.
  if (data === undefined) return client.invalidateQueries()
  const room = roomOf(o.kind)
  put[room](client, o, data)
  for (const other of restsOn[room]) (behind.has(other) ? askBehind : askOne)(client, other)
  return undefined
}
