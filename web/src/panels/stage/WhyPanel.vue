<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { computed } from 'vue'
import type { Why } from '../../api/client'
import { useWorkspace } from '../../stores/workspace'
import SmallChip from '../shared/SmallChip.vue'

/** Why a part looks as it does: one sentence, then each level from broad to narrow. */
const props = defineProps<{ why: Why; x: number; y: number }>()
defineEmits<{ close: [] }>()
const workspace = useWorkspace()

const WIDTH = 340
const place = computed(() => ({
  left: `${Math.min(props.x + 14, window.innerWidth - WIDTH - 12)}px`,
  top: `${Math.max(56, Math.min(props.y + 14, window.innerHeight - 60 - 24 * props.why.levels.length - 90))}px`,
}))
function material(id: string | null) {
  return id ? (workspace.materials.get(id) ?? null) : null
}
</script>

<template>
  <Teleport to="body">
    <section class="why" role="dialog" aria-label="Why this look?" :style="place">
      <header>
        <b>Why this look?</b>
        <button class="plain" aria-label="Close" @click="$emit('close')">
          <v-icon :icon="mdiClose" size="14" />
        </button>
      </header>
      <p>{{ why.sentence }}</p>
      <ol>
        <li v-for="l in why.levels" :key="`${l.level}/${l.target}`" :class="{ wins: l.wins }">
          <em>{{ l.level }}</em>
          <template v-if="material(l.material)">
            <SmallChip :material="material(l.material)" />
            <span
              >{{ material(l.material)?.name }}
              <small class="soft"
                >{{ l.why }}<template v-if="l.inherited"> · from scheme {{ l.inherited }}</template></small
              >
            </span>
          </template>
          <template v-else>
            <i />
            <span class="soft"
              >nothing<template v-if="l.name"> · {{ l.name }}</template></span
            >
          </template>
        </li>
      </ol>
    </section>
  </Teleport>
</template>

<style scoped>
.why {
  position: fixed;
  z-index: 2000;
  width: 340px;
  padding: 10px 12px;
  background: var(--paper);
  border: 1px solid var(--line-strong);
  border-radius: var(--radius);
}
header {
  display: flex;
  justify-content: space-between;
  margin-bottom: 4px;
}
ol {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
  display: grid;
  gap: 3px;
}
li {
  display: grid;
  grid-template-columns: 44px 26px 1fr;
  gap: 8px;
  align-items: center;
  padding: 2px 6px;
  border: 1px solid transparent;
  border-radius: 2px;
}
.wins {
  border-color: var(--accent);
  background: var(--white);
}
.wins span {
  font-weight: 600;
}
li small {
  display: block;
  font-weight: 400;
}
em {
  font-style: normal;
  font-size: 11px;
  color: var(--soft);
}
</style>
