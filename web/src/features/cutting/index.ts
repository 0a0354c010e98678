export { default as CutPage } from './CutPage.vue'
export { default as TicketPage } from './TicketPage.vue'
