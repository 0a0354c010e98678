export { default as CheckPage } from './CheckPage.vue'
