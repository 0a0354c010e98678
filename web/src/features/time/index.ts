export { default as EveningsPage } from './EveningsPage.vue'
export { default as TimePage } from './TimePage.vue'
