export { default as LogPage } from './LogPage.vue'
export { default as StoryPage } from './StoryPage.vue'
