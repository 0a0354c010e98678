import { onBeforeUnmount, onMounted } from 'vue'

/** Keeps the screen on while a page is open, where the browser can; asked for anew when the page is looked at again. */
export function useAwake() {
  let held: { release: () => Promise<void> } | undefined
  const hold = async () => {
    if (document.visibilityState !== 'visible' || !('wakeLock' in navigator)) return
    held = await navigator.wakeLock.request('screen').catch(() => undefined)
  }
  onMounted(() => {
    void hold()
    document.addEventListener('visibilitychange', hold)
  })
  onBeforeUnmount(() => {
    document.removeEventListener('visibilitychange', hold)
    void held?.release().catch(() => undefined)
  })
}
