<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import type { Plan, Project } from '../api'
import { CautionList } from '../shared'
import MaterialBoards from './MaterialBoards.vue'
import TapeRuler from './TapeRuler.vue'
import { useKnownParts } from './useKnownParts'
import type { Lighting } from './useLighting'
import WoodPatterns from './WoodPatterns.vue'

const props = defineProps<{ project: Project; plan: Plan; lighting: Lighting }>()
const GUTTER = 30
const RIGHT = 52

const pane = useTemplateRef<HTMLElement>('pane')
const { width } = useElementSize(pane)
const scale = computed(() =>
  props.plan.longest_ticks
    ? Math.max(120, width.value - GUTTER - RIGHT) / props.plan.longest_ticks
    : 0,
)
const parts = useKnownParts(() => props.project.parts)
const drawn = computed(() => props.plan.materials.some((m) => m.layouts.length))
</script>

<template>
  <div ref="pane" class="pane">
    <WoodPatterns />
    <div v-if="drawn" class="ruler">
      <TapeRuler :unit="project.unit" :longest="plan.longest_ticks" :scale="scale" />
    </div>
    <MaterialBoards
      v-for="material in plan.materials"
      :key="material.stock"
      :material="material"
      :scale="scale"
      :parts="parts"
      :lit="lighting.lit.value"
      @hover="lighting.hover"
      @select="lighting.select"
    />
    <div v-if="drawn" class="cautions">
      <h2>At the saw</h2>
      <CautionList :cautions="[...plan.saw_cautions, ...plan.other_cautions]" />
    </div>
    <p v-if="!plan.materials.length" class="quiet nothing">
      The boards are drawn here, to scale, as soon as there is a part.
    </p>
  </div>
</template>

<style scoped>
.pane {
  padding: 0 4px 0 30px;
}

.ruler {
  position: sticky;
  top: 0;
  z-index: 3;
  background: rgb(var(--v-theme-background));
  padding: 10px 0 6px;
  margin: 0 -4px 8px -30px;
  padding-left: 30px;
}

.cautions {
  max-width: 62em;
  margin: 28px 0 20px;
  padding-left: 12px;
  border-left: 4px solid rgb(var(--v-theme-saw));
  font-size: var(--text-small);
}

.cautions h2 {
  font-size: var(--text-plain);
}

.cautions p {
  margin: 4px 0;
}

.nothing {
  padding: 60px 0;
}
</style>
