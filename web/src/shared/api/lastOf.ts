import { type Ref, shallowRef, watch } from 'vue'

/** The last answer there was; it stays in sight while something typed cannot be taken. */
export function lastOf<T>(answer: Readonly<Ref<T | undefined>>) {
  const last = shallowRef(answer.value)
  watch(answer, (now) => {
    if (now !== undefined) last.value = now
  })
  return last
}
