<script setup lang="ts">
import { computed } from 'vue'
import { api } from '../../api/client'
import AttentionFold from './AttentionFold.vue'
import CutAgain from './CutAgain.vue'
import NamesFold from './NamesFold.vue'
import RolesFold from './RolesFold.vue'
import SidesFold from './SidesFold.vue'
import TakeMaterials from './TakeMaterials.vue'
import { counted, useWorkspace } from '../../stores/workspace'

/** How many of the largest parts and pictures are listed. */
const LISTED = 8

const workspace = useWorkspace()
const scene = computed(() => workspace.scene)

const size = computed(() => {
  const s = workspace.state
  const b = scene.value?.bounds
  if (!s || !b) return ''
  const lengths = [0, 1, 2].map((k) =>
    (((b[k + 3] ?? 0) - (b[k] ?? 0)) / s.unitMetres).toFixed(s.unitDecimals),
  )
  return `${lengths.join(' × ')} ${s.unit}`
})

/** Each geometry once, with the parts that show it, the largest first. */
const geometries = computed(() => {
  const all = new Map<string, { name: string; parts: number[]; bytes: number; triangles: number }>()
  for (const p of scene.value?.parts ?? []) {
    const known = all.get(p.mesh)
    if (known) known.parts.push(p.index)
    else all.set(p.mesh, { name: p.name, parts: [p.index], bytes: p.geometryBytes, triangles: p.triangles })
  }
  return [...all.values()].sort((a, b) => b.bytes - a.bytes)
})
const geometryBytes = computed(() => geometries.value.reduce((sum, g) => sum + g.bytes, 0))
const pictureBytes = computed(() => (scene.value?.pictures ?? []).reduce((sum, p) => sum + p.memory, 0))
const sources = computed(() => scene.value?.sets.filter((s) => s.source !== null).length ?? 0)
const open = computed(() => scene.value?.parts.filter((p) => !p.closed) ?? [])

function weight(bytes: number): string {
  return bytes >= 2 ** 20
    ? `${(bytes / 2 ** 20).toFixed(1)} MB`
    : `${Math.max(1, Math.round(bytes / 1024))} kB`
}

function choose(parts: number[]) {
  workspace.select(parts.map((part) => ({ part, span: 0 })))
}
</script>

<template>
  <aside v-if="scene" class="card side-card" aria-label="What arrived">
    <h1 class="title">What arrived</h1>
    <p class="soft small file">{{ scene.fileName }}</p>
    <dl>
      <dt>Format</dt>
      <dd>{{ scene.origin.format }}</dd>
      <dt>Size</dt>
      <dd>{{ size }}</dd>
      <dt>Unit in the file</dt>
      <dd>
        {{ scene.origin.unit }}
        <span class="soft small">{{ scene.origin.unitReason }}</span>
      </dd>
      <dt>Up</dt>
      <dd>
        {{ scene.origin.upAxis }}
        <span class="soft small">{{ scene.origin.upReason }}</span>
      </dd>
      <dt>Parts</dt>
      <dd>
        {{ counted(scene.parts.length, 'part') }} in {{ counted(scene.groups.length, 'group') }}
        <span class="soft small">{{ counted(geometries.length, 'shape') }}, repeats kept once</span>
      </dd>
      <dt>Triangles</dt>
      <dd>{{ scene.triangles.toLocaleString('en') }} in {{ counted(scene.faces, 'face') }}</dd>
      <template v-if="scene.origin.cut && scene.origin.stray">
        <dt>Round surfaces</dt>
        <dd><CutAgain :cut="scene.origin.cut" :stray="scene.origin.stray" /></dd>
      </template>
      <dt>Source materials</dt>
      <dd>{{ sources.toLocaleString('en') }}</dd>
      <dt>Open parts</dt>
      <dd v-if="open.length === 0">None: every part is a closed body</dd>
      <dd v-else>
        <button class="plain link" @click="choose(open.map((p) => p.index))">
          {{ counted(open.length, 'part') }}
        </button>
        <span class="soft small">surfaces without an inside: no mass, and no solid glass</span>
      </dd>
    </dl>
    <AttentionFold />
    <RolesFold />
    <SidesFold />
    <NamesFold />
    <section v-if="scene.notes.length > 0" class="fold" aria-label="Not used">
      <h2>In the file, and not used</h2>
      <ul>
        <li v-for="n in scene.notes" :key="n">{{ n }}</li>
      </ul>
    </section>
    <section class="fold" aria-label="Pictures">
      <h2>
        Pictures
        <small v-if="scene.pictures.length > 0">
          {{ counted(scene.pictures.length, 'picture') }}, {{ weight(pictureBytes) }} on the stage
        </small>
      </h2>
      <p v-if="scene.pictures.length === 0" class="soft small">The file brought no textures.</p>
      <ol v-else>
        <li v-for="p in scene.pictures.slice(0, LISTED)" :key="p.sha256">
          <img :src="api.assetAddress(workspace.id, p.sha256)" alt="" loading="lazy" />
          <span>{{ p.width }} × {{ p.height }}</span>
          <span class="soft">{{ weight(p.memory) }}</span>
        </li>
      </ol>
    </section>
    <TakeMaterials />
    <section class="fold" aria-label="Heaviest shapes">
      <h2>
        Shapes, heaviest first <small>{{ weight(geometryBytes) }}</small>
      </h2>
      <ol>
        <li v-for="g in geometries.slice(0, LISTED)" :key="g.name + g.parts[0]">
          <button class="plain link" @click="choose(g.parts)">{{ g.name }}</button>
          <span class="soft">{{ g.parts.length > 1 ? `× ${g.parts.length}` : '' }}</span>
          <span class="soft">{{ weight(g.bytes) }}</span>
        </li>
      </ol>
    </section>
  </aside>
</template>

<style scoped>
.file {
  margin-bottom: 10px;
  overflow-wrap: anywhere;
}
dl {
  display: grid;
  grid-template-columns: 104px 1fr;
  gap: 5px 8px;
  margin-bottom: 12px;
}
dt {
  color: var(--soft);
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
dd .small {
  display: block;
}
ul,
ol {
  list-style: none;
  padding: 0;
  margin: 0;
}
ul li {
  padding: 2px 0;
}
ol li {
  display: grid;
  grid-template-columns: 1fr auto 64px;
  gap: 8px;
  padding: 2px 0;
  align-items: center;
}
ol li :last-child {
  text-align: right;
}
ol li img {
  width: 28px;
  height: 28px;
  object-fit: cover;
  border-radius: var(--radius);
}
.link {
  color: var(--accent);
  text-align: left;
  overflow-wrap: anywhere;
}
</style>
