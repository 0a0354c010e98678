import { useStorage } from '@vueuse/core'
import type { RemovableRef } from '@vueuse/core'

/** What a storage is when the browser forbids it: a list in this page. */
class InPage implements Pick<Storage, 'getItem' | 'setItem' | 'removeItem'> {
  private readonly kept = new Map<string, string>()
  getItem = (key: string) => this.kept.get(key) ?? null
  setItem = (key: string, value: string) => void this.kept.set(key, value)
  removeItem = (key: string) => void this.kept.delete(key)
}

/** The storage of this browser, or of this window only, wherever it may be used. */
function storageOf(which: 'localStorage' | 'sessionStorage') {
  try {
    const storage = window[which]
    storage.setItem('entretoile.probe', '1')
    storage.removeItem('entretoile.probe')
    return storage
  } catch {
    return new InPage()
  }
}
export const inBrowser = storageOf('localStorage')
export const inWindow = storageOf('sessionStorage')

/** A choice that is remembered in this browser and is nobody's work. */
export const usePreference = <T extends string | number | object>(key: string, usual: T): RemovableRef<T> =>
  useStorage<T>(`entretoile.${key}`, usual, inBrowser)

/** A choice that lasts as long as the window. */
export const useWindowPreference = <T extends string | number | object>(
  key: string,
  usual: T,
): RemovableRef<T> => useStorage<T>(`entretoile.${key}`, usual, inWindow)
