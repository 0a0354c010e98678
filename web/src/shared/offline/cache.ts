import type { QueryClient } from '@tanstack/vue-query'

import type { Schemas } from '@/shared/api/client'

import type { Outgoing } from './outgoing'

/** What the server answered stands; a reading of it that set out before is asked again, since it may be the older. */
function settle(client: QueryClient, queryKey: string[], data: unknown) {
  client.setQueryData(queryKey, data)
  if (client.isFetching({ queryKey, exact: true })) void client.invalidateQueries({ queryKey, exact: true })
}

/** What the answer to a change says of what is on screen, and what has to be asked again. */
export function keep(client: QueryClient, o: Outgoing, data: unknown) {
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
