<script setup lang="ts">
import ConnectionNote from './panels/shared/ConnectionNote.vue'
import SignInAgain from './panels/shared/SignInAgain.vue'
</script>

<template>
  <v-app>
    <router-view />
    <ConnectionNote />
    <SignInAgain />
  </v-app>
</template>
