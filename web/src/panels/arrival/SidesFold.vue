<script setup lang="ts">
import { computed } from 'vue'
import { api } from '../../api/client'
import { BACK, FRONT, HATCH } from '../../stage/sides'
import OneOf from '../shared/OneOf.vue'
import { counted, useWorkspace, type Display } from '../../stores/workspace'

const SHOWN: { value: Display; text: string }[] = [
  { value: 'looks', text: 'Looks' },
  { value: 'sides', text: 'Fronts and backs' },
  { value: 'set', text: 'Sets in colours' },
  { value: 'shape', text: 'Shapes in colours' },
]

/** Which side of each surface is its front, and turning what is the wrong way round. */
const workspace = useWorkspace()
const chosen = computed(() => [...new Set(workspace.selection.map((r) => r.part))])
const all = computed(() => workspace.scene?.parts.map((p) => p.index) ?? [])
const backs = {
  background: `repeating-linear-gradient(135deg, ${HATCH} 0 2px, transparent 2px 6px), ${BACK}`,
}

async function turn(how: 'flip' | 'outward', parts: number[]) {
  if (await workspace.run((v) => api.turnParts(workspace.id, v, parts, how)))
    workspace.tell(`${workspace.state?.undo ?? ''} · undo takes it back`)
}
</script>

<template>
  <section class="fold" aria-label="What the stage shows">
    <h2>What the stage shows</h2>
    <OneOf v-model="workspace.display" label="The stage shows" :choices="SHOWN" />
    <p v-if="workspace.display === 'sides'" class="legend small">
      <i :style="{ background: FRONT }" /> front <i :style="backs" /> back, hatched
    </p>
    <div class="acts">
      <v-btn
        size="small"
        :disabled="chosen.length === 0 || workspace.pending > 0"
        @click="turn('flip', chosen)"
      >
        Flip {{ chosen.length > 0 ? counted(chosen.length, 'part') : 'selected parts' }}
      </v-btn>
      <v-btn
        size="small"
        :disabled="workspace.pending > 0"
        @click="turn('outward', chosen.length > 0 ? chosen : all)"
      >
        Turn {{ chosen.length > 0 ? 'them' : 'all' }} outward
      </v-btn>
    </div>
    <p class="soft small">
      Outward makes each connected shell of one mind: closed bodies face out, walls of hollows face in. The
      file keeps its own.
    </p>
  </section>
</template>

<style scoped>
.legend {
  display: flex;
  gap: 6px;
  align-items: center;
  margin: 4px 0;
}
.legend i {
  width: 22px;
  height: 12px;
  border-radius: var(--radius);
}
.legend i + i {
  margin-left: 8px;
}
.acts {
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
  margin: 4px 0 6px;
}
</style>
