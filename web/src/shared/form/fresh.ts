import { onMounted, type Ref } from 'vue'

/** What was just added or opened takes the keyboard, unless one types elsewhere meanwhile; `pick`: what it begins with is picked, to be
 * typed over. */
export function useFocusWhenFresh(
  of: Readonly<Ref<HTMLElement | null | undefined>>,
  fresh: () => boolean,
  pick = false,
) {
  onMounted(() => {
    if (!fresh() || document.activeElement instanceof HTMLInputElement) return
    const field = of.value?.querySelector<HTMLInputElement>('input:not([type=color])')
    field?.focus()
    if (pick) field?.select()
  })
}
