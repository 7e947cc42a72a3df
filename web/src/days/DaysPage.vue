<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { useProject } from '../project'
import { HeldPage } from '../shared'
import DaysView from './DaysView.vue'

const id = String(useRoute().params.id)
const desk = useProject(id)
const chosen = ref('')
const project = computed(() => desk.project.value)
</script>

<template>
  <HeldPage :held="desk" called="The days" fetching="Working the days out">
    <DaysView v-if="project" v-model="chosen" :project="project" :desk="desk" />
  </HeldPage>
</template>
