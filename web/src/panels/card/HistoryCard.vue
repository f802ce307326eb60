<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, type Moment } from '../../api/client'
import { useWorkspace } from '../../stores/workspace'
import LeftOpen from './LeftOpen.vue'

/** What has been done to the project, newest first, and the way back to any moment of it. */
const workspace = useWorkspace()
const moments = shallowRef<Moment[]>([])
const more = ref(false)
const naming = ref<{ id: number; name: string } | null>(null)
const PAGE = 100

async function read(before?: number) {
  try {
    const page = await api.history(workspace.id, before)
    moments.value = before === undefined ? page : [...moments.value, ...page]
    more.value = page.length === PAGE
  } catch (e) {
    workspace.report(e)
  }
}
watch(
  () => workspace.state?.version,
  () => void read(),
  { immediate: true },
)

/** The newest that still stands: that is how things are now. */
const now = computed(() => moments.value.find((m) => !m.undone)?.id)
const days = computed(() => {
  const out: { day: string; moments: Moment[] }[] = []
  for (const m of moments.value) {
    const day = new Date(m.at).toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long' })
    if (out.at(-1)?.day !== day) out.push({ day, moments: [] })
    out.at(-1)?.moments.push(m)
  }
  return out
})
function time(m: Moment): string {
  return new Date(m.at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
}

function back(m: Moment, force = false) {
  void workspace.run(
    (v) => api.backTo(workspace.id, v, m.id, force),
    () => back(m, true),
  )
}
async function name() {
  const n = naming.value
  naming.value = null
  if (!n) return
  try {
    await api.nameMoment(workspace.id, n.id, n.name)
    await read()
  } catch (e) {
    workspace.report(e)
  }
}
</script>

<template>
  <aside class="card side-card" aria-label="History">
    <header>
      <h1 class="title">History</h1>
      <button class="plain" aria-label="Close" @click="workspace.aside = null">
        <v-icon :icon="mdiClose" size="16" />
      </button>
    </header>
    <LeftOpen />
    <p v-if="moments.length === 0" class="soft">
      Nothing has been done yet. Whatever you do to the project is listed here, and you can go back to any
      moment of it.
    </p>
    <section v-for="d in days" :key="d.day" class="fold" :aria-label="d.day">
      <h2>{{ d.day }}</h2>
      <ol>
        <li v-for="m in d.moments" :key="m.id" :class="{ undone: m.undone, now: m.id === now }">
          <time class="soft small">{{ time(m) }}</time>
          <span>
            <b v-if="m.name" class="given">{{ m.name }}</b>
            {{ m.label }}
            <small class="soft">
              {{ m.own ? '' : m.by }}<template v-if="m.undone"> taken back</template
              ><template v-if="m.id === now"> as it is now</template>
            </small>
            <input
              v-if="naming?.id === m.id"
              v-model="naming.name"
              class="field"
              aria-label="Name of this moment"
              placeholder="Name of this moment"
              autofocus
              maxlength="120"
              @keydown.enter="name"
              @keydown.esc="naming = null"
              @blur="name"
            />
            <span v-else class="acts small">
              <button
                v-if="!m.undone && m.id !== now"
                class="plain"
                title="Everything as it was right after this. One undo brings you back here."
                @click="back(m)"
              >
                Back to here
              </button>
              <button class="plain" @click="naming = { id: m.id, name: m.name ?? '' }">
                {{ m.name ? 'Rename' : 'Name this moment' }}
              </button>
            </span>
          </span>
        </li>
      </ol>
    </section>
    <v-btn v-if="more" size="small" @click="read(moments.at(-1)?.id)">Earlier</v-btn>
  </aside>
</template>

<style scoped>
header {
  display: flex;
  justify-content: space-between;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 38px 1fr;
  padding: 4px 2px;
  border-left: 3px solid transparent;
}
li > span {
  min-width: 0;
  overflow-wrap: anywhere;
}
.now {
  border-left-color: var(--accent);
  background: var(--white);
}
.undone {
  color: var(--soft);
  text-decoration: line-through;
}
.given {
  display: block;
  color: var(--accent);
}
.acts {
  display: flex;
  gap: 12px;
  color: var(--accent);
  visibility: hidden;
}
li:hover .acts,
li:focus-within .acts {
  visibility: visible;
}
</style>
