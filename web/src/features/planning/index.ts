export { default as ComparePage } from './ComparePage.vue'
export { default as PlanPage } from './PlanPage.vue'
