<script setup lang="ts">
import type { Length } from '../api'

defineProps<{ length: Length }>()
</script>

<template>
  <tspan>{{ length.whole }}</tspan>
  <tspan v-if="length.numerator" class="fraction">
    {{ `${length.numerator}⁄${length.denominator}` }}
  </tspan>
  <tspan>{{ length.mark }}</tspan>
</template>
