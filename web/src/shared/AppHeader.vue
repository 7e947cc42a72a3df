<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { session } from '../account/session'
import { api } from '../api/client'
import { panelOpen } from '../tape/tape'
import { useOpenProject } from '../projects/openProject'

const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const { project, plan, lastId } = useOpenProject()

const units: Record<string, string> = { in: 'inches', mm: 'millimetres' }
const title = computed(() =>
  project.value && ['desk', 'list'].includes(String(route.name))
    ? project.value.name
    : 'Grain Tally',
)
const subtitle = computed(() =>
  title.value === 'Grain Tally'
    ? 'real sizes, least waste, proven'
    : `build ${project.value?.copies} · ${units[project.value?.unit ?? 'in']} · ${project.value?.yard?.name ?? 'no yard'}`,
)
const places = computed(() => [
  { name: 'projects', label: 'Projects', sub: 'to build', to: '/projects' },
  ...(lastId.value
    ? [
        { name: 'desk', label: 'Desk', sub: 'plan', to: `/projects/${lastId.value}` },
        {
          name: 'list',
          label: 'List',
          sub: plan.value ? `${plan.value.tally.boards} to buy` : 'to buy',
          to: `/projects/${lastId.value}/list`,
        },
        { name: 'trip', label: 'Yard', sub: 'pick up', to: `/projects/${lastId.value}/yard` },
      ]
    : []),
  { name: 'yards', label: 'Prices', sub: 'of yards', to: '/yards' },
  { name: 'rack', label: 'Rack', sub: 'on hand', to: '/rack' },
  { name: 'sizes', label: 'Sizes', sub: 'the book', to: '/sizes' },
])

function isHere(name: string): boolean {
  return (
    route.name === name ||
    (name === 'yards' && route.name === 'yard') ||
    (name === 'sizes' && route.name === 'materials')
  )
}

async function signOut() {
  const { data } = await api.DELETE('/api/session')
  queries.clear()
  await (await import('../trip/stored')).forgetTrips()
  lastId.value = ''
  if (data) session.value = data
  await router.push('/sign-in')
}
</script>

<template>
  <header class="tape">
    <div class="name">
      <RouterLink to="/projects" class="heading called">{{ title }}</RouterLink>
      <span class="sub">{{ subtitle }}</span>
    </div>
    <nav v-if="session?.username" class="places" aria-label="Places">
      <RouterLink
        v-for="place in places"
        :key="place.name"
        :to="place.to"
        class="place"
        :class="{ here: isHere(place.name) }"
        :aria-current="isHere(place.name) ? 'page' : undefined"
      >
        <span class="called">{{ place.label }}</span>
        <span class="sub">{{ place.sub }}</span>
      </RouterLink>
    </nav>
    <div class="acts">
      <div id="header-acts" class="header-acts"></div>
      <v-menu v-if="session?.username">
        <template #activator="{ props }">
          <v-btn
            v-bind="props"
            class="who"
            :aria-label="`${session.is_demo ? 'Demo' : session.username}: account menu`"
          >
            {{ session.is_demo ? 'Demo' : session.username }}
          </v-btn>
        </template>
        <v-list>
          <v-list-item
            :title="panelOpen ? 'Put the digital tape away' : 'Digital tape'"
            @click="panelOpen = !panelOpen"
          />
          <v-list-item to="/account" title="Account" />
          <v-list-item title="Sign out" @click="signOut" />
        </v-list>
      </v-menu>
    </div>
  </header>
</template>

<style scoped>
.tape {
  display: flex;
  align-items: stretch;
  height: 56px;
  line-height: 1.35;
  background: rgb(var(--v-theme-ink));
  color: rgb(var(--v-theme-on-ink));
}

.name {
  width: 430px;
  flex: 0 1 430px;
  min-width: 0;
  padding: 8px 20px;
  display: flex;
  flex-direction: column;
}

.heading {
  color: inherit;
  text-decoration: none;
  font-size: 1.06rem;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.sub {
  font-size: 0.74rem;
  color: #b3c0c6;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}

.places {
  border-left: 2px solid #d79c78;
  display: flex;
  flex: 0 1 auto;
  background-image: repeating-linear-gradient(90deg, #7d8d94 0 1px, transparent 1px 10px);
  background-size: 100% 7px;
  background-repeat: no-repeat;
  background-position: left bottom;
}

.place {
  display: flex;
  flex-direction: column;
  width: 80px;
  padding: 8px 6px 8px 9px;
  color: inherit;
  text-decoration: none;
  border-right: 1px solid;
  border-image: linear-gradient(transparent 62%, #c4cfd3 62%) 1;
}

.place:hover {
  background: #22323a;
}

.place.here {
  background: #2b3d46;
  box-shadow: inset 0 -3px rgb(var(--v-theme-tape));
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
  font-size: 1rem;
  border-color: #51636b;
  color: inherit;
}

.who {
  max-width: 130px;
}

@media (max-width: 1100px) {
  .name {
    flex-basis: 230px;
  }

  .place {
    width: 72px;
    padding: 8px 6px;
  }
}

@media (max-width: 820px) {
  .tape {
    height: auto;
    flex-wrap: wrap;
  }

  .name {
    flex: 1 1 60%;
    border-right: 0;
  }

  .acts {
    padding: 6px 12px;
  }

  .places {
    order: 3;
    width: 100%;
  }

  .place {
    flex: 1 1 0;
    width: auto;
  }

  .places .sub {
    display: none;
  }
}

@media (max-width: 480px) {
  .acts {
    gap: 6px;
    padding: 6px 8px;
  }

  .acts :deep(.v-btn) {
    min-width: 0;
    padding: 0 10px;
  }

  .header-acts {
    gap: 6px;
  }

  .place {
    padding: 8px 2px 8px 4px;
    font-size: 0.82rem;
    font-stretch: var(--condensed);
  }
}
</style>
