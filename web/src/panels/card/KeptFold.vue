<script setup lang="ts">
import { ref, watch } from 'vue'
import { api, type Material, type Standing } from '../../api/client'
import { useLibraries } from '../../stores/libraries'
import { useWorkspace } from '../../stores/workspace'
import KeepIn from '../tray/KeepIn.vue'

/** Where a material of the project is kept, and whether it has changed since. */
const props = defineProps<{ material: Material }>()
const workspace = useWorkspace()
const libraries = useLibraries()
const standing = ref<Standing | null>(null)
let asked = 0

watch(
  [() => props.material.id, () => workspace.state?.version, () => libraries.known],
  async () => {
    const mine = ++asked
    const read = await api.standing(workspace.id, props.material.id).catch(() => null)
    if (mine === asked) standing.value = read
  },
  { immediate: true },
)
</script>

<template>
  <div class="kept small">
    <p v-if="standing?.item" :class="standing.same ? 'soft' : ''">
      {{ standing.same ? 'As in' : 'Not as in' }} {{ standing.library }}: <b>{{ standing.item.code }}</b>
      {{ standing.item.name }}
    </p>
    <div class="acts">
      <template v-if="standing?.item && !standing.same">
        <button
          v-if="standing.mayEdit"
          class="plain"
          title="The library’s becomes what this one is; other projects keep what they show"
          @click="
            libraries.act(() => api.updateKept(workspace.id, material.id), `Kept in ${standing?.library}`)
          "
        >
          Keep the change there
        </button>
        <button
          class="plain"
          title="This one becomes what the library’s is"
          @click="workspace.run((v) => api.takeKept(workspace.id, v, material.id))"
        >
          Take the library’s
        </button>
      </template>
      <KeepIn
        class="in"
        :label="standing?.item ? 'Keep as another in …' : 'Keep in a library …'"
        @choose="(l, d) => libraries.keep(l, d, [material.id])"
      />
    </div>
  </div>
</template>

<style scoped>
.kept {
  display: grid;
  gap: 4px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
}
.acts button {
  color: var(--accent);
}
.in {
  width: 170px;
}
</style>
