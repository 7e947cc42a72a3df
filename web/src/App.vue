<script setup lang="ts">
import { SignInAgain } from './account'
import { signingInAgain } from './api'
import { AppHeader, KeysDialog } from './places'
import { keysOpen } from './shared'
import { panelOpen, TapePanel } from './tape'
</script>

<template>
  <v-app>
    <a class="skip" href="#main">To the page</a>
    <AppHeader v-if="$route.name" />
    <v-main>
      <div id="main" tabindex="-1">
        <RouterView :key="String($route.params.id ?? $route.name)" />
      </div>
    </v-main>
    <KeysDialog v-if="keysOpen" />
    <TapePanel v-if="panelOpen" />
    <SignInAgain v-if="signingInAgain" />
  </v-app>
</template>

<style>
#main {
  outline: none;
}

.skip {
  position: absolute;
  left: -999px;
}

.skip:focus {
  left: 8px;
  top: 8px;
  z-index: 3000;
  background: rgb(var(--v-theme-tape));
  color: rgb(var(--v-theme-on-tape));
  padding: 8px 12px;
}
</style>
