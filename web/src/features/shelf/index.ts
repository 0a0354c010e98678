export { default as ShelfPage } from './ShelfPage.vue'
