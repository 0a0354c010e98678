import { onlineManager } from '@tanstack/vue-query'
import { ref } from 'vue'

/** Whether the server answered when it was last asked. */
export const reachable = ref(onlineManager.isOnline())
onlineManager.subscribe((on) => (reachable.value = on))
