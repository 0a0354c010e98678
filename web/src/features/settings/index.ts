export { default as SettingsPage } from './SettingsPage.vue'
