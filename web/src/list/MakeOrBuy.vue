<script setup lang="ts">
import { useMutation } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, type Project } from '../api'

/** Rip and mill a part, or buy it made. */
const props = defineProps<{ project: Project }>()
const part = ref<string>()
const price = ref('')
const choices = computed(() =>
  props.project.parts.map((one) => ({
    title: `${one.mark}  ${one.pieces} × ${one.called || one.stock_name}`,
    value: one.id,
  })),
)

const { mutate, reset, data, error, isPending } = useMutation({
  mutationFn: async () => {
    const answer = await api.GET('/api/projects/{project_id}/make-or-buy/{part_id}', {
      params: {
        path: { project_id: props.project.id, part_id: part.value ?? '' },
        query: { price: price.value },
      },
    })
    if (!answer.data) throw new Error(answer.error?.detail ?? 'it could not be weighed: try again')
    return answer.data
  },
})

watch([part, price, () => props.project.version], () => reset())
</script>

<template>
  <template v-if="project.parts.length && project.yard">
    <h2>Make or buy</h2>
    <form class="weigh" @submit.prevent="mutate()">
      <v-select v-model="part" label="Part" class="which" :items="choices" />
      <v-text-field
        v-model="price"
        label="One made costs"
        class="price"
        placeholder="6.20 or 0.85/ft"
        autocomplete="off"
      />
      <v-btn type="submit" :disabled="!part || !price.trim()" :loading="isPending">Weigh</v-btn>
    </form>
    <p v-if="error" role="alert">{{ error.message }}</p>
    <p v-else-if="data" class="told" role="status">
      {{ data.told }}.
      <span class="quiet"
        >{{
          data.proven
            ? 'Both purchases are proven least'
            : 'One of the purchases is not proven least'
        }}; your time and the saw’s are not counted.</span
      >
    </p>
  </template>
</template>

<style scoped>
.weigh {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: flex-start;
}

.which {
  flex: 0 1 320px;
  min-width: 200px;
}

.price {
  flex: 0 1 200px;
}

.told {
  margin-top: 12px !important;
}

.told::first-letter {
  text-transform: uppercase;
}
</style>
