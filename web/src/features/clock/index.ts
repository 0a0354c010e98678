export { default as ClockStart } from './ClockStart.vue'
export { default as ProjectTime } from './ProjectTime.vue'
export { default as WorkClock } from './WorkClock.vue'
