export { useCheck } from './api'
export { default as CheckPage } from './CheckPage.vue'
export { default as ReadingsLadder } from './ReadingsLadder.vue'
