<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import { computed } from 'vue'

/** What to mind where the work can hurt. It is put away for now, and is there again next time. */
const props = defineProps<{ cautions: readonly string[] }>()
const away = useSessionStorage<string[]>('grain-tally:cautions-seen', [])
const all = computed(() => [...new Set(props.cautions)])
const shown = computed(() => all.value.filter((one) => !away.value.includes(one)))

function putAway() {
  away.value = [...new Set([...away.value, ...all.value])]
}

function showAgain() {
  away.value = away.value.filter((one) => !all.value.includes(one))
}
</script>

<template>
  <div v-if="all.length" class="cautions">
    <p v-for="one in shown" :key="one" class="caution">{{ one }}</p>
    <button v-if="shown.length" type="button" class="act" @click="putAway">Seen, for now</button>
    <button v-else type="button" class="act" @click="showAgain">
      {{ all.length === 1 ? 'A caution' : `${all.length} cautions` }} seen: show again
    </button>
  </div>
</template>

<style scoped>
.caution {
  margin: 0 0 6px;
  padding-left: 10px;
  border-left: 3px solid rgb(var(--v-theme-saw));
}

.act {
  min-height: 44px;
  padding: 0;
  font-size: var(--text-small);
  color: rgb(var(--v-theme-quiet));
  text-decoration: underline;
  text-underline-offset: 4px;
}
</style>
