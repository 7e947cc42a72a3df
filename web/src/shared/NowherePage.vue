<template>
  <div class="page">
    <h1>Nothing at this address</h1>
    <p class="quiet">It may have been deleted, or it is somebody else's.</p>
    <p><RouterLink to="/projects">To your projects</RouterLink></p>
  </div>
</template>
