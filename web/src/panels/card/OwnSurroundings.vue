<script setup lang="ts">
import { computed } from 'vue'
import type { Card } from './card'
import ParameterControl from './ParameterControl.vue'
import PicturePick from './PicturePick.vue'

/** What the material mirrors: what is around it, or a picture of surroundings of its own. */
const props = defineProps<{ of: Card }>()
const OWN = 'reflected_surroundings'
const own = computed(() => props.of.material.textures.some((t) => t.parameter === OWN))
</script>

<template>
  <template v-if="own">
    <ParameterControl parameter="reflected_strength" :of="of" />
    <ParameterControl :parameter="OWN" :of="of" />
  </template>
  <template v-else>
    <p class="soft small">
      It mirrors what is around it. Take a panorama here, once around and twice as wide as high, and it
      mirrors that instead; its body is lit as before.
    </p>
    <PicturePick :parameter="OWN" :of="of" begun />
  </template>
</template>
