<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue'
import type { Plan } from '../api'
import type { ProjectOnDesk } from '../project'

const props = defineProps<{ plan: Plan; desk: ProjectOnDesk }>()
const MarkCutDialog = defineAsyncComponent(() => import('./MarkCutDialog.vue'))
const open = ref(false)
const isWanted = ref(false)
const canBeCut = computed(
  () => props.plan.stage !== 'cut' && props.plan.materials.some((one) => one.layouts.length),
)

function ask() {
  isWanted.value = true
  open.value = true
}
</script>

<template>
  <v-btn v-if="canBeCut" size="small" @click="ask">Mark as cut</v-btn>
  <MarkCutDialog v-if="isWanted" v-model="open" :plan="plan" :desk="desk" />
</template>
