export { default as CutPage } from './CutPage.vue'
export { default as TicketPage } from './TicketPage.vue'
export { default as StockRow } from './StockRow.vue'
export { useShelf } from './api'
