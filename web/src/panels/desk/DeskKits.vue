<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, type Kit, type Library } from '../../api/client'
import { useLibraries } from '../../stores/libraries'
import { counted, useWorkspace } from '../../stores/workspace'
import SampleChip from '../tray/SampleChip.vue'

/** Kits of a library: made of this project's palette, laid out in the next, or what new projects begin with. */
const props = defineProps<{ library: Library }>()
const workspace = useWorkspace()
const libraries = useLibraries()
const name = ref('')
const left = ref<string[]>([])
const may = computed(() => props.library.role !== 'USE')
const kits = computed(() => libraries.kits.filter((k) => k.library === props.library.id))
const palette = computed(() => (workspace.state?.palette ?? []).map((u) => u.material))
const taken = computed(() => palette.value.filter((m) => !left.value.includes(m.id)))

function toggle(id: string) {
  left.value = left.value.includes(id) ? left.value.filter((l) => l !== id) : [...left.value, id]
}
async function make() {
  const given = name.value.trim()
  const some = taken.value.map((m) => m.id)
  const done = await libraries.act(
    () => api.makeKit(props.library.id, workspace.id, given, some),
    `${given} · ${counted(some.length, 'material')}`,
  )
  if (done) name.value = ''
}
async function lay(k: Kit) {
  if (await workspace.run((v) => api.layKit(workspace.id, v, k.id)))
    workspace.tell(`${k.name} lies in the palette`)
}
</script>

<template>
  <div class="kits">
    <section aria-label="Kits">
      <p v-if="kits.length === 0" class="soft">
        A kit is a set of materials that go together: what the office always uses, or a client’s house
        finishes.
      </p>
      <div v-for="k in kits" :key="k.id" class="kit">
        <b>{{ k.name }}</b> <span class="soft small">{{ counted(k.materials, 'material') }}</span>
        <v-btn size="small" @click="lay(k)">Lay into the palette</v-btn>
        <label class="small">
          <input
            type="checkbox"
            :checked="libraries.known.starter === k.id"
            @change="libraries.act(() => api.setStarter(libraries.known.starter === k.id ? null : k.id))"
          />
          My new projects begin with it
        </label>
        <button
          v-if="may"
          class="plain small link"
          @click="libraries.act(() => api.deleteKit(library.id, k.id), `${k.name} taken apart`)"
        >
          Take apart
        </button>
      </div>
    </section>
    <section v-if="may" aria-label="New kit">
      <form class="new" @submit.prevent="make">
        <input
          v-model="name"
          class="field"
          maxlength="120"
          placeholder="New kit of this project’s palette"
          aria-label="Name of the kit"
        />
        <v-btn size="small" type="submit" :disabled="!name.trim() || taken.length === 0">
          Make it of {{ taken.length }}
        </v-btn>
        <span class="soft small"
          >Click a chip to leave it out. What no library has yet is kept in this one.</span
        >
      </form>
      <div class="grid">
        <SampleChip
          v-for="m in palette"
          :key="m.id"
          still
          :material="m"
          :chosen="!left.includes(m.id)"
          @choose="toggle(m.id)"
          @apply="toggle(m.id)"
        />
      </div>
    </section>
  </div>
</template>

<style scoped>
.kits {
  padding: 10px 12px;
  display: grid;
  gap: 12px;
}
.kit {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 5px 0;
  border-bottom: 1px solid var(--line);
}
.kit input {
  accent-color: var(--accent);
  vertical-align: -2px;
}
.new {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-bottom: 8px;
}
.new .field {
  width: 260px;
  height: 26px;
}
.grid {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.link {
  color: var(--accent);
  margin-left: auto;
}
</style>
