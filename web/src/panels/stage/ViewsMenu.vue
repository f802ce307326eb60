<script setup lang="ts">
import { mdiBookmarkOutline, mdiHumanMale, mdiWhiteBalanceSunny } from '@mdi/js'
import { computed, ref } from 'vue'
import { api, type SavedView } from '../../api/client'
import { stageHandle } from '../../stores/stageHandle'
import { useViews } from '../../stores/views'
import NameField from '../shared/NameField.vue'
import { counted, useWorkspace } from '../../stores/workspace'

/** Views that are kept, and where to stand. */
const workspace = useWorkspace()
const views = useViews()
const open = ref(false)
const name = ref('')
const renaming = ref<string | null>(null)
function pictureOf(view: SavedView): string | null {
  const taken = views.pictured[view.id] ?? 0
  return view.pictured || taken > 0 ? `${api.viewPictureAddress(workspace.id, view.id)}?${taken}` : null
}
const groups = computed(() =>
  [
    { word: 'Outside', views: views.all.filter((v) => !v.enclosed) },
    { word: 'Inside', views: views.all.filter((v) => v.enclosed) },
  ].filter((g) => g.views.length > 0),
)
const given = computed(() => name.value.trim() || `View ${views.all.length + 1}`)
const parts = computed(() => [...new Set(workspace.selection.map((r) => r.part))])
const through = computed(() => views.current?.lookedInto ?? [])

async function keep() {
  await views.keep(given.value)
  name.value = ''
}
function go(view: SavedView) {
  views.go(view)
  open.value = false
}
function rename(view: SavedView, to: string) {
  void workspace.run((v) => api.nameView(workspace.id, v, view.id, to))
}
async function drop(view: SavedView) {
  if (await workspace.run((v) => api.dropView(workspace.id, v, view.id)))
    workspace.tell(`View ${view.name} is gone · undo takes it back`)
}
function choose() {
  open.value = false
  views.choosing = true
}
</script>

<template>
  <v-menu v-model="open" location="top" :close-on-content-click="false">
    <template #activator="{ props: menu }">
      <v-btn size="small" v-bind="menu" :prepend-icon="mdiBookmarkOutline">
        {{ views.current?.name ?? 'Views' }}
      </v-btn>
    </template>
    <div class="views" aria-label="Views">
      <p v-if="views.all.length === 0" class="soft small">
        A view that is kept here is the same for every scheme, and a picture of it can be made at any time.
      </p>
      <section v-for="g in groups" :key="g.word">
        <h2>{{ g.word }}</h2>
        <div class="grid">
          <div v-for="v in g.views" :key="v.id" class="view" :class="{ on: v.id === views.chosen }">
            <button class="plain" :aria-label="`Go to ${v.name}`" @click="go(v)">
              <img v-if="pictureOf(v)" :src="pictureOf(v) ?? ''" alt="" />
              <span v-else class="none soft">no picture</span>
            </button>
            <NameField
              v-if="renaming === v.id"
              :name="v.name"
              label="Name of the view"
              @named="rename(v, $event)"
              @done="renaming = null"
            />
            <button v-else class="plain name" title="Rename" @click="renaming = v.id">{{ v.name }}</button>
            <span class="acts small">
              <button class="plain" title="Has it be from where the stage is seen now" @click="views.take(v)">
                Take anew
              </button>
              <button class="plain" :aria-label="`Take ${v.name} away`" title="Take away" @click="drop(v)">
                ×
              </button>
            </span>
          </div>
        </div>
      </section>
      <section v-if="views.current" class="row small">
        <span class="soft">
          {{
            through.length > 0
              ? `You see through ${counted(through.length, 'part')} in ${views.current.name}`
              : `See through parts in ${views.current.name} alone:`
          }}
        </span>
        <button
          class="plain link"
          :disabled="parts.length === 0"
          @click="views.seeThrough(views.current, parts)"
        >
          Through {{ parts.length > 0 ? counted(parts.length, 'selected part') : 'the selection' }}
        </button>
        <button v-if="through.length > 0" class="plain link" @click="views.seeThrough(views.current, [])">
          Through none
        </button>
      </section>
      <section class="row">
        <input
          v-model="name"
          class="field"
          :placeholder="given"
          aria-label="Name of this view"
          @keydown.enter="keep"
        />
        <v-btn size="small" color="primary" variant="flat" :disabled="workspace.pending > 0" @click="keep">
          Keep this view
        </v-btn>
      </section>
      <section class="row small">
        <label class="angle">
          Angle of view
          <input
            type="range"
            min="10"
            max="90"
            step="1"
            :value="views.degrees"
            aria-label="Angle of view in degrees"
            @input="views.zoom(Number(($event.target as HTMLInputElement).value))"
          />
          <output>{{ views.degrees.toFixed(0) }}°</output>
        </label>
        <v-btn size="small" :prepend-icon="mdiWhiteBalanceSunny" @click="stageHandle?.goToLight()">
          Lit side
          <v-tooltip activator="parent" location="top">Go around to where the light comes from</v-tooltip>
        </v-btn>
        <v-btn size="small" :prepend-icon="mdiHumanMale" @click="choose">
          Stand somewhere
          <v-tooltip activator="parent" location="top">V, then click where you stand</v-tooltip>
        </v-btn>
      </section>
    </div>
  </v-menu>
</template>

<style scoped>
.views {
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: var(--radius);
  padding: 12px;
  width: 452px;
  max-height: 76vh;
  overflow: auto;
  display: grid;
  gap: 12px;
}
h2 {
  font-size: 12px;
  font-weight: 600;
  margin-bottom: 6px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 10px;
}
.view {
  display: grid;
  gap: 2px;
  align-content: start;
}
.view > button:first-child {
  aspect-ratio: 32 / 21;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  overflow: hidden;
  display: grid;
  place-items: center;
}
.view.on > button:first-child {
  outline: 2px solid var(--accent);
}
.view img {
  width: 100%;
  height: 100%;
  object-fit: cover;
  display: block;
}
.name {
  text-align: left;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.acts {
  display: flex;
  justify-content: space-between;
  color: var(--soft);
}
.row {
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
}
.row > .field {
  flex: 1;
}
.angle {
  display: flex;
  gap: 6px;
  align-items: center;
  flex-basis: 100%;
}
.angle input {
  flex: 1;
  min-width: 60px;
  accent-color: var(--accent);
}
.link {
  color: var(--accent);
}
</style>
