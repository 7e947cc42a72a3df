<script setup lang="ts">
import type { Place } from './usePlaces'

/** The places as feet on a tape; on a phone they lie at the foot of the screen. */
defineProps<{ places: Place[] }>()
</script>

<template>
  <nav class="places" aria-label="Places">
    <RouterLink
      v-for="place in places"
      :key="place.to"
      :to="place.to"
      class="place"
      :class="{ here: place.here }"
      :aria-current="place.here ? 'page' : undefined"
    >
      <span class="called">{{ place.label }}</span>
      <span class="word">{{ place.word }}</span>
    </RouterLink>
    <slot />
  </nav>
</template>

<style scoped>
.places {
  display: flex;
  flex: 0 1 auto;
  min-width: 0;
  color: rgb(var(--v-theme-on-ink));
  border-left: 2px solid rgb(var(--v-theme-durable));
  background-image: repeating-linear-gradient(
    90deg,
    rgb(var(--v-theme-ink-rule)) 0 1px,
    transparent 1px 10px
  );
  background-size: 100% 7px;
  background-repeat: no-repeat;
  background-position: left bottom;
}

.place {
  display: flex;
  flex-direction: column;
  width: 96px;
  min-width: 0;
  padding: 8px 6px 8px 10px;
  color: inherit;
  text-decoration: none;
  border-right: 1px solid;
  border-image: linear-gradient(transparent 62%, rgb(var(--v-theme-ink-rule)) 62%) 1;
}

@media (hover: hover) {
  .place:hover {
    background: rgb(var(--v-theme-ink-raised));
  }
}

.place.here {
  background: rgb(var(--v-theme-ink-raised));
  box-shadow: inset 0 -3px rgb(var(--v-theme-tape));
}

.called,
.word {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.word {
  font-size: var(--text-fine);
  color: rgb(var(--v-theme-ink-quiet));
}

@media (max-width: 1100px) {
  .place {
    width: 84px;
    padding: 8px 6px;
  }
}

@media (max-width: 820px) {
  .places {
    position: fixed;
    z-index: var(--over-page);
    inset: auto 0 0;
    height: var(--foot);
    border-left: 0;
    background-color: rgb(var(--v-theme-ink));
    background-position: left top;
  }

  .place,
  .places :deep(.foot-act) {
    flex: 1 1 0;
    width: auto;
    min-width: 0;
    min-height: 48px;
    padding: 9px 4px 4px;
    text-align: center;
    border-image: linear-gradient(rgb(var(--v-theme-ink-rule)) 38%, transparent 38%) 1;
  }

  .place.here {
    box-shadow: inset 0 3px rgb(var(--v-theme-tape));
  }

  .called {
    font-size: var(--text-small);
    font-stretch: var(--condensed);
  }
}
</style>
