<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, keys } from '../api'
import CrossSection from './CrossSection.vue'
import WaysToSize from './WaysToSize.vue'

const route = useRoute()
const router = useRouter()
const typed = computed({
  get: () => String(route.query.name ?? ''),
  set: (name: string | null) =>
    void router.replace({ query: { ...route.query, name: name || undefined } }),
})
const name = refDebounced(typed, 150)
const failed = ref(false)
const { data: book } = useQuery({
  queryKey: computed(() => keys.sizes(name.value)),
  queryFn: async () => {
    const { data } = await api.GET('/api/sizes', { params: { query: { name: name.value } } })
    failed.value = !data
    return data ?? null
  },
  placeholderData: (before) => before,
})
</script>

<template>
  <div class="page">
    <h1>Size book</h1>
    <p class="quiet lead">
      What boards are called, and what they measure. A yard's own size, where its price list gives
      one, counts before these; so does the tape on the board in your hand.
      <RouterLink to="/materials">Woods, treatments and materials of your own</RouterLink>
    </p>
    <WaysToSize />
    <h2>Look a size up</h2>
    <v-text-field
      v-model="typed"
      label="A name, such as 5/4, 8/4, 2x10 green, picket, 38x89"
      type="search"
      clearable
      class="find"
    />
    <p v-if="failed" role="alert">The book could not be opened: the server does not answer.</p>
    <p v-if="book?.message" role="status">
      {{ book.message }}
    </p>
    <section v-for="family in book?.families" :key="family.name">
      <h2>{{ family.name }}</h2>
      <p class="quiet source">{{ family.note }} Source: {{ family.source }}.</p>
      <div class="sections">
        <CrossSection v-for="size in family.sizes" :key="size.name" :size="size" />
      </div>
    </section>
  </div>
</template>

<style scoped>
.lead {
  max-width: 44em;
}

.find {
  max-width: 460px;
}

h2::first-letter {
  text-transform: uppercase;
}

.source {
  font-size: var(--text-small);
}

.sections {
  display: flex;
  flex-wrap: wrap;
  align-items: flex-end;
  gap: 18px 20px;
  border-bottom: 1px solid rgb(var(--v-theme-rule));
  padding-bottom: 14px;
}
</style>
