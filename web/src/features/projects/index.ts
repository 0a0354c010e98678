export { useProject } from './api'
export { default as ProjectRoom } from './ProjectRoom.vue'
export { default as ProjectsPage } from './ProjectsPage.vue'
