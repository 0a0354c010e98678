export { default as TrimPage } from './TrimPage.vue'
