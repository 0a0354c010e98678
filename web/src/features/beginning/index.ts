export { default as BeginPage } from './BeginPage.vue'
