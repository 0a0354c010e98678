export { default as DiagnosePage } from './DiagnosePage.vue'
export { default as MeasurePage } from './MeasurePage.vue'
export { default as WhatIfPage } from './WhatIfPage.vue'
export { default as WrongPage } from './WrongPage.vue'
