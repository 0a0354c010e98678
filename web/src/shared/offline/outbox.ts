import { computed, onScopeDispose } from 'vue'

import type { Outgoing } from './outgoing'
import { add, changes } from './queue'

/** Hand something over to be sent, now or when the server is back. */
export function useOutbox() {
  let here = true
  onScopeDispose(() => (here = false))
  /** Sent; a refusal is shown on top of every page until it is put away. */
  const send = (o: Outgoing) => void add(o)
  /** Sent; resolves with the answer. */
  const sent = (o: Outgoing) => add(o)
  /**
   * Sent; a refusal comes back to the caller, who shows it beside the field and keeps what was typed. When what is on the page
   * is gone by then, it is shown on top of the next one.
   */
  const tried = (o: Outgoing) => add(o, () => here)
  /** The same for fields that keep what was refused, with its reason, until it is put right: see `useFields`. */
  const typedIn = (o: Outgoing) => add(o, () => here, true)
  return { send, sent, tried, typedIn }
}

/** What the server does not have yet. */
export function useWaiting() {
  return computed(() => changes.value.filter((c) => c.state === 'waiting').map((c) => c.what))
}
