import { type ShallowRef, shallowRef, watch } from 'vue'

/** The same list for as long as it says the same: a list read anew would lose its mark under the hand that is choosing. */
export function useSteady<T>(list: () => T): Readonly<ShallowRef<T>> {
  const kept = shallowRef(list())
  watch(list, (now) => {
    if (JSON.stringify(now) !== JSON.stringify(kept.value)) kept.value = now
  })
  return kept
}
