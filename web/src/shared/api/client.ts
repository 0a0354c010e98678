import { onlineManager } from '@tanstack/vue-query'
import createClient from 'openapi-fetch'

import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type LengthOut = Schemas['Length']
export type Problem = Schemas['Problem']
export type FieldProblem = Schemas['FieldProblem']
export type Project = Schemas['Project']
export type PlannedUnit = Schemas['PlannedUnit']

/** The server did not answer at all. What was to be sent is kept and sent when it is back. */
export class ServerAway extends Error {}

/** The server answered with a refusal. */
export class Refusal extends Error {
  /** `change`: the name of what was not taken, in the queue of changes. */
  constructor(
    readonly problem: Problem,
    readonly change = '',
  ) {
    super(problem.detail)
  }

  of(field: string): FieldProblem | undefined {
    return this.problem.errors.find((e) => e.field === field)
  }
}

export async function reach(request: Request): Promise<Response> {
  try {
    const response = await fetch(request)
    if (response.status >= 502 && response.status <= 504) throw new TypeError('gateway')
    onlineManager.setOnline(true)
    return response
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    onlineManager.setOnline(false)
    throw new ServerAway('The server is away.')
  }
}

export const api = createClient<paths>({ baseUrl: '/', fetch: reach })

interface Answer<T> {
  data?: T
  error?: unknown
  response: Response
}

const unknownProblem = (status: number): Problem => ({
  type: 'about:blank',
  title: 'Not done',
  status,
  code: 'server_error',
  detail: 'The server could not do this. Nothing was changed; try again, and reload if it happens twice.',
  errors: [],
})

/** The data of an answer, or its refusal thrown. */
export async function taken<T>(answer: Promise<Answer<T>>): Promise<T> {
  const { data, error, response } = await answer
  if (response.ok) return data as T
  const problem = error && typeof error === 'object' && 'code' in error ? (error as Problem) : null
  throw new Refusal(problem ?? unknownProblem(response.status))
}

/** Asks every two seconds whether a server that was away is back. */
export function watchForReturn() {
  setInterval(() => {
    if (!onlineManager.isOnline()) void reach(new Request('/api/health')).catch(() => undefined)
  }, 2000)
}
