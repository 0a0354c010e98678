export { default as MendPage } from './MendPage.vue'
