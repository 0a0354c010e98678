<script setup lang="ts">
import { enUS, NConfigProvider, NDialogProvider, NGlobalStyle, NMessageProvider } from 'naive-ui'
import { RouterLink, RouterView, useRoute } from 'vue-router'

import ClashDialog from '@/shared/ui/ClashDialog.vue'
import NearlyFull from '@/shared/ui/NearlyFull.vue'
import OutboxNotice from '@/shared/ui/OutboxNotice.vue'
import SavedNote from '@/shared/ui/SavedNote.vue'

import { WorkClock } from '@/features/clock'

import mark from './mark.svg'
import { theme } from './theme'

const route = useRoute()
/** Every field has its name beside it: an empty one says nothing besides. */
const nothing = { placeholder: '' }
const locale = { ...enUS, Input: nothing, InputNumber: nothing, Select: nothing }
</script>

<template>
  <NConfigProvider :theme-overrides="theme" :locale="locale">
    <NGlobalStyle />
    <NMessageProvider placement="bottom" :keep-alive-on-hover="true">
      <NDialogProvider>
        <a class="skip" href="#main">Skip to the work</a>
        <header v-if="!route.meta.bare" class="top">
          <RouterLink to="/" class="name"
            ><img :src="mark" alt="" width="26" height="26" /> <span>Entretoile</span></RouterLink
          >
          <nav aria-label="Around the workroom">
            <WorkClock />
            <SavedNote />
            <RouterLink to="/">Projects</RouterLink>
            <RouterLink to="/shelf">Shelf</RouterLink>
            <RouterLink to="/records">Records</RouterLink>
            <RouterLink to="/wrong">What is wrong?</RouterLink>
            <RouterLink to="/settings">Settings</RouterLink>
          </nav>
        </header>
        <OutboxNotice />
        <NearlyFull v-if="!route.meta.bare" />
        <RouterView />
        <ClashDialog />
      </NDialogProvider>
    </NMessageProvider>
  </NConfigProvider>
</template>

<style scoped>
.top {
  display: flex;
  align-items: center;
  justify-content: space-between;
  padding: 0 24px;
  height: 46px;
  background: var(--mat-deep);
  color: var(--chalk);
}

.top a {
  color: var(--chalk);
  text-decoration: none;
}

.name {
  display: inline-flex;
  align-items: center;
  gap: 10px;
  font-size: 20px;
  font-weight: 600;
  font-stretch: 88%;
}

nav {
  display: flex;
  align-items: center;
  gap: 22px;
}

nav a {
  padding: 4px 2px;
  border-bottom: 2px dashed transparent;
}

nav a.router-link-exact-active,
nav a:hover {
  border-bottom-color: var(--oilskin);
}

@media (width <= 560px) {
  .top {
    height: auto;
    min-height: 46px;
    padding: 4px 12px;
  }

  nav {
    flex-wrap: wrap;
    justify-content: flex-end;
    row-gap: 0;
  }
}

@media (width <= 480px) {
  .name span {
    position: absolute;
    clip-path: inset(50%);
  }

  nav {
    gap: 14px;
  }
}
</style>
