<script setup lang="ts">
import { SURROUNDINGS } from '../../stage/surroundings'
import { useWorkspace } from '../../stores/workspace'
import ValueSlider from '../shared/ValueSlider.vue'

const workspace = useWorkspace()
const name = (id: string) => SURROUNDINGS.find((s) => s.id === id)?.name ?? id
</script>

<template>
  <aside class="card side-card" aria-label="Light">
    <h1 class="title">Light</h1>
    <p class="soft small">Set the surroundings before judging a material: it shows what they give it.</p>
    <section class="fold" aria-label="Surroundings">
      <h2>
        Surroundings <small>{{ name(workspace.light.surroundings) }}</small>
      </h2>
      <ValueSlider
        label="Strength"
        :value="workspace.light.strength"
        :max="4"
        :step="0.05"
        hint="How bright the surroundings are; 1 is as photographed."
        @input="workspace.setLight({ strength: $event })"
        @change="workspace.setLight({ strength: $event })"
        @reset="workspace.setLight({ strength: 1 })"
      />
      <ValueSlider
        label="Turn"
        :value="workspace.light.turn"
        :min="-180"
        :max="180"
        :step="5"
        :decimals="0"
        unit="°"
        hint="Turns the surroundings about the model, so that highlights fall where the form reads."
        @input="workspace.setLight({ turn: $event })"
        @change="workspace.setLight({ turn: $event })"
        @reset="workspace.setLight({ turn: 0 })"
      />
    </section>
    <section class="fold" aria-label="Exposure">
      <h2>Exposure</h2>
      <ValueSlider
        label="Stops"
        :value="workspace.light.exposure"
        :min="-4"
        :max="4"
        :step="0.1"
        :decimals="1"
        hint="Each stop doubles or halves the light in the picture. The backdrop keeps its tone."
        @input="workspace.setLight({ exposure: $event })"
        @change="workspace.setLight({ exposure: $event })"
        @reset="workspace.setLight({ exposure: 0 })"
      />
    </section>
  </aside>
</template>

<style scoped>
.card .small {
  margin-bottom: 12px;
}
</style>
