<template>
  <svg width="0" height="0" class="defs" aria-hidden="true">
    <defs>
      <pattern
        id="saw-waste"
        width="6"
        height="6"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <rect width="6" height="6" class="waste-ground" />
        <rect width="3" height="6" class="waste-line" />
      </pattern>
      <pattern id="mark-treated" width="14" height="10" patternUnits="userSpaceOnUse">
        <path d="M1 3h5M8 8h5" class="mark" />
      </pattern>
      <pattern id="mark-durable" width="120" height="22" patternUnits="userSpaceOnUse">
        <path d="M0 6c30-6 60 8 120 0M0 15c40 6 70-6 120 0" class="mark" />
      </pattern>
      <pattern id="mark-plain" width="60" height="9" patternUnits="userSpaceOnUse">
        <path d="M0 4.5h60" class="mark" />
      </pattern>
      <pattern id="mark-composite" width="7" height="7" patternUnits="userSpaceOnUse">
        <circle cx="2" cy="2" r="0.8" class="dot" />
      </pattern>
      <pattern id="mark-sheet" width="9" height="9" patternUnits="userSpaceOnUse">
        <path d="M0 4.5h9M4.5 0v9" class="mark" />
      </pattern>
    </defs>
  </svg>
</template>

<style scoped>
.defs {
  position: absolute;
}

.waste-ground {
  fill: rgb(var(--v-theme-surface));
}

.waste-line {
  fill: rgb(var(--v-theme-saw));
}

.mark {
  fill: none;
  stroke: rgb(var(--v-theme-on-wood));
  stroke-opacity: 0.16;
}

.dot {
  fill: rgb(var(--v-theme-on-wood));
  fill-opacity: 0.28;
}
</style>
