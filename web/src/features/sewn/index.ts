export { default as SewnPage } from './SewnPage.vue'
export { default as WhatIfPage } from './WhatIfPage.vue'
export { default as WrongPage } from './WrongPage.vue'
