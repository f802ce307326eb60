<script setup lang="ts">
import { computed, ref } from 'vue'
import { api } from '../../api/client'
import { counted, useWorkspace } from '../../stores/workspace'
import NoteLine from '../shared/NoteLine.vue'
import SmallChip from '../shared/SmallChip.vue'

/** What is not decided yet: what was noted, and things that several candidates are kept for. */
const workspace = useWorkspace()
const open = computed(() => workspace.state?.notes.filter((n) => !n.settled) ?? [])
const settled = computed(() => workspace.state?.notes.filter((n) => n.settled) ?? [])
const choices = computed(() => workspace.state?.candidates.filter((c) => c.materials.length > 1) ?? [])
const shows = ref(false)
const text = ref('')

async function write() {
  const note = { id: crypto.randomUUID(), level: 'model', target: 0, text: text.value.trim() }
  if (note.text && (await workspace.run((v) => api.writeNote(workspace.id, v, note)))) text.value = ''
}
</script>

<template>
  <section class="fold" aria-label="Left open">
    <h2>Left open · {{ open.length + choices.length }}</h2>
    <NoteLine v-for="n in open" :key="n.id" :note="n" place />
    <div v-for="c in choices" :key="`${c.level} ${c.target}`" class="choice small">
      <button class="plain about" @click="workspace.selectSpot(c)">
        {{ c.about }}
      </button>
      <span class="chips">
        <SmallChip
          v-for="m in c.materials.slice(0, 6)"
          :key="m"
          :material="workspace.materials.get(m) ?? null"
        />
        <span class="soft">{{ counted(c.materials.length, 'candidate') }}</span>
      </span>
    </div>
    <form class="write" @submit.prevent="write">
      <input
        v-model="text"
        class="field small"
        maxlength="1000"
        aria-label="What is left open about the whole design"
        placeholder="About the whole design"
      />
      <v-btn size="small" type="submit" :disabled="!text.trim()">Note it</v-btn>
    </form>
    <button v-if="settled.length > 0" class="plain small link" @click="shows = !shows">
      {{ shows ? 'Hide' : 'Show' }} {{ settled.length }} settled
    </button>
    <template v-if="shows">
      <NoteLine v-for="n in settled" :key="n.id" :note="n" place />
    </template>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 5px;
}
.choice {
  padding: 2px 6px 3px;
  border-left: 3px solid var(--amber);
}
.about {
  font-weight: 600;
}
.chips,
.write {
  display: flex;
  align-items: center;
  gap: 6px;
}
.write input {
  flex: 1;
  min-width: 0;
}
.link {
  color: var(--accent);
  justify-self: start;
}
</style>
