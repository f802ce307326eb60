<script setup lang="ts">
import { ref } from 'vue'
import { SURROUNDINGS } from '../../stage/surroundings'
import { useLight } from '../../stores/light'
import NameField from '../shared/NameField.vue'
import ValueSlider from '../shared/ValueSlider.vue'

const light = useLight()
const naming = ref(false)
const name = (id: string) => SURROUNDINGS.find((s) => s.id === id)?.name ?? id

function named(to: string) {
  void light.rename(to)
}
</script>

<template>
  <aside class="card side-card" aria-label="Light">
    <h1 class="title">Light</h1>
    <p class="soft small">Set the surroundings before judging a material: it shows what they give it.</p>
    <section class="fold" aria-label="Light set-ups">
      <h2>
        Set-ups
        <small>{{ light.setups.length > 1 ? `${light.setups.length}, the team’s` : 'the team’s' }}</small>
      </h2>
      <div class="setups" role="radiogroup" aria-label="Light set-up in view">
        <button
          v-for="l in light.setups"
          :key="l.id"
          class="plain setup"
          role="radio"
          :aria-checked="l.id === light.current?.id"
          :class="{ on: l.id === light.current?.id }"
          @click="light.look(l.id)"
        >
          <img :src="`/environments/${l.surroundings}.png`" alt="" />
          <span>{{ l.name }}</span>
        </button>
      </div>
      <NameField
        v-if="naming && light.current"
        :name="light.current.name"
        label="Name of the light set-up"
        @named="named"
        @done="naming = false"
      />
      <p v-else class="acts">
        <v-btn size="small" @click="naming = true">Rename</v-btn>
        <v-btn size="small" @click="light.copy()">Copy</v-btn>
        <button v-if="light.setups.length > 1" class="link" @click="light.remove()">Remove</button>
      </p>
    </section>
    <section class="fold" aria-label="Surroundings">
      <h2>
        Surroundings <small>{{ name(light.shown.surroundings) }}</small>
      </h2>
      <ValueSlider
        label="Strength"
        :value="light.shown.strength"
        :max="4"
        :step="0.05"
        hint="How bright the surroundings are; 1 is as photographed."
        @input="light.tryOut({ strength: $event })"
        @change="light.set({ strength: $event })"
        @reset="light.set({ strength: 1 })"
      />
      <ValueSlider
        label="Turn"
        :value="light.shown.turn"
        :min="-180"
        :max="180"
        :step="5"
        :decimals="0"
        unit="°"
        hint="Turns the surroundings about the model, so that highlights fall where the form reads."
        @input="light.tryOut({ turn: $event })"
        @change="light.set({ turn: $event })"
        @reset="light.set({ turn: 0 })"
      />
    </section>
    <section class="fold" aria-label="Exposure">
      <h2>Exposure</h2>
      <ValueSlider
        label="Stops"
        :value="light.shown.exposure"
        :min="-4"
        :max="4"
        :step="0.1"
        :decimals="1"
        hint="Each stop doubles or halves the light in the picture. The backdrop keeps its tone."
        @input="light.tryOut({ exposure: $event })"
        @change="light.set({ exposure: $event })"
        @reset="light.set({ exposure: 0 })"
      />
    </section>
  </aside>
</template>

<style scoped>
.card .small {
  margin-bottom: 12px;
}
.setups {
  display: flex;
  flex-direction: column;
  gap: 4px;
}
.setup {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 3px;
  border: 1px solid transparent;
  border-radius: var(--radius);
  text-align: left;
}
.setup img {
  width: 44px;
  height: 22px;
  object-fit: cover;
  border-radius: 2px;
}
.setup.on {
  border-color: var(--accent);
}
.acts {
  display: flex;
  gap: 8px;
  margin-top: 8px;
}
</style>
