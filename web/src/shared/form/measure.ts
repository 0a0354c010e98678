import { ref } from 'vue'

/** The measure that lengths are typed in on the page in hand: its project's, or the workroom's. */
export const measureInHand = ref<'in' | 'mm'>('in')
