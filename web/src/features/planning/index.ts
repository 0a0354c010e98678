export { default as PlanPage } from './PlanPage.vue'
