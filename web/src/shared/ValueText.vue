<script setup lang="ts">
import type { Value } from '../api'
import LengthText from './LengthText.vue'

/** A value of a measure; ≈ stands before one that is rounded where it is cut. */
defineProps<{ value: Value }>()
</script>

<template>
  <span v-if="value.length"
    ><template v-if="!value.exact && value.length.exact">≈</template
    ><LengthText :length="value.length"
  /></span>
  <span v-else>{{ value.exact ? '' : '≈' }}{{ value.text }}</span>
</template>
