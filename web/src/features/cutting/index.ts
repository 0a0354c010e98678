export { default as CutPage } from './CutPage.vue'
