export { useBench, useKinds, useProject } from './api'
export { default as KindDialog } from './KindDialog.vue'
export { default as ProjectRoom } from './ProjectRoom.vue'
export { default as ProjectsPage } from './ProjectsPage.vue'
export { default as StandingPage } from './StandingPage.vue'
export { default as UnitChooser } from './UnitChooser.vue'

export type Stage = 'plan' | 'compare' | 'sew' | 'press' | 'trim' | 'measure' | 'diagnose'
