<script setup lang="ts">
import { ref, watch } from 'vue'
import { useProject, YardChoice } from '../project'

/** Chooses the yard of a project that has none, on the way to it. */
const props = defineProps<{ project: string }>()
const emit = defineEmits<{ chosen: [] }>()
const desk = useProject(props.project)
const held = desk.thing
const yard = ref('')
const fault = ref('')

watch(yard, async (id) => {
  if (!id) return
  const outcome = await desk.changeSettings({ yard: id })
  fault.value = outcome.kind === 'done' ? '' : 'the yard was not taken: try again'
  if (outcome.kind === 'done') emit('chosen')
})
</script>

<template>
  <div v-if="held && !held.yard" class="choose">
    <YardChoice v-model="yard" label="Which yard do you go to?" none="choose one" />
    <p v-if="fault" role="alert" class="text-error">{{ fault }}</p>
  </div>
</template>

<style scoped>
.choose {
  width: 100%;
}
</style>
