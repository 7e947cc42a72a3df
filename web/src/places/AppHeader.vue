<script setup lang="ts">
import { useEventListener, useMediaQuery } from '@vueuse/core'
import { computed, defineAsyncComponent, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { session } from '../api'
import { isElsewhere, isTyping, keysOpen, MenuOpener } from '../shared'
import PlacesTape from './PlacesTape.vue'
import { usePlaces } from './usePlaces'

const WorkshopMenu = defineAsyncComponent(() => import('./WorkshopMenu.vue'))
const route = useRoute()
const router = useRouter()
const { inProject, onTape, ofWorkshop, project } = usePlaces()
const signedIn = computed(() => Boolean(session.value?.username))
const atFoot = useMediaQuery('(max-width: 820px)')
const workshop = ref(false)

const units: Record<string, string> = { in: 'inches', mm: 'millimetres' }
const title = computed(() =>
  inProject.value && project.value
    ? project.value.name
    : signedIn.value
      ? 'Workshop'
      : 'Grain Tally',
)
const subtitle = computed(() =>
  inProject.value && project.value
    ? `build ${project.value.copies} · ${units[project.value.unit]} · ${project.value.yard?.name ?? 'no yard'}`
    : 'Grain Tally: real sizes, least waste, proven',
)

useEventListener('keydown', (event: KeyboardEvent) => {
  if (!signedIn.value || isTyping(event) || isElsewhere(event)) return
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const place = onTape.value[Number(event.key) - 1]
  if (place) void router.push(place.to)
  else if (event.key.toLowerCase() === 'w') workshop.value = true
  else if (event.key === '?') keysOpen.value = true
  else return
  event.preventDefault()
})
</script>

<template>
  <header class="tape" :class="{ bare: route.meta.bare, full: route.meta.full }">
    <div class="name">
      <RouterLink to="/projects" class="heading called">{{ title }}</RouterLink>
      <span class="sub">{{ subtitle }}</span>
    </div>
    <PlacesTape v-if="signedIn && !atFoot" :places="onTape" />
    <div class="acts">
      <div id="header-acts" class="header-acts"></div>
      <MenuOpener
        v-if="signedIn && !atFoot"
        v-slot="{ opens }"
        v-model="workshop"
        :menu="WorkshopMenu"
        :of="{ places: ofWorkshop }"
      >
        <v-btn v-bind="opens">Workshop</v-btn>
      </MenuOpener>
    </div>
  </header>
  <PlacesTape v-if="signedIn && atFoot" :places="onTape">
    <MenuOpener
      v-slot="{ opens }"
      v-model="workshop"
      :menu="WorkshopMenu"
      :of="{ places: ofWorkshop }"
    >
      <button v-bind="opens" type="button" class="foot-act called">Workshop</button>
    </MenuOpener>
  </PlacesTape>
</template>

<style scoped>
.tape {
  display: flex;
  align-items: stretch;
  height: var(--head);
  line-height: 1.35;
  background: rgb(var(--v-theme-ink));
  color: rgb(var(--v-theme-on-ink));
}

.name {
  width: 350px;
  flex: 0 1 350px;
  min-width: 0;
  padding: 8px 20px;
  display: flex;
  flex-direction: column;
}

.heading {
  color: inherit;
  text-decoration: none;
  font-size: var(--text-lead);
  line-height: 1.25;
}

.heading,
.sub {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.sub {
  font-size: var(--text-fine);
  color: rgb(var(--v-theme-ink-quiet));
}

.acts {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-left: auto;
  padding: 0 16px 0 8px;
}

.header-acts {
  display: flex;
  gap: 8px;
}

.acts :deep(.v-btn) {
  font-size: var(--text-body);
  border-color: rgb(var(--v-theme-ink-rule));
  color: inherit;
}

.foot-act {
  color: rgb(var(--v-theme-on-ink));
  font-size: var(--text-small);
  font-stretch: var(--condensed);
}

@media (max-width: 1100px) {
  .tape.full {
    display: none;
  }

  .name {
    flex-basis: 230px;
  }
}

@media (max-width: 820px) {
  .tape.bare {
    display: none;
  }

  .acts {
    gap: 6px;
    padding: 0 8px;
  }

  .acts :deep(.v-btn) {
    min-width: 0;
    padding: 0 9px;
    font-size: var(--text-small);
  }

  .name {
    padding: 8px 12px;
  }
}
</style>
