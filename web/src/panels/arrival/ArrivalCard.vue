<script setup lang="ts">
import { computed, onBeforeUnmount, ref } from 'vue'
import { api } from '../../api/client'
import AttentionFold from './AttentionFold.vue'
import CutAgain from './CutAgain.vue'
import CleanUpFold from './CleanUpFold.vue'
import DressingFold from './DressingFold.vue'
import MendFold from './MendFold.vue'
import MissingFold from './MissingFold.vue'
import ModelsFold from './ModelsFold.vue'
import NamesFold from './NamesFold.vue'
import RolesFold from './RolesFold.vue'
import SelectionFold from './SelectionFold.vue'
import SidesFold from './SidesFold.vue'
import UpdateFold from './UpdateFold.vue'
import TakeMaterials from './TakeMaterials.vue'
import { stageHandle } from '../../stores/stageHandle'
import { weight } from '../shared/lengths'
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

/** What stands beside the model, in words. */
const beside = ref('')
function showScale() {
  beside.value = stageHandle.value?.showScale(beside.value === '') ?? ''
}
onBeforeUnmount(() => stageHandle.value?.showScale(false))

/** Each geometry once, with the parts that show it, the largest first. */
const geometries = computed(() => {
  const all = new Map<string, { name: string; parts: number[]; bytes: number; triangles: number }>()
  for (const p of workspace.design) {
    const known = all.get(p.mesh)
    if (known) known.parts.push(p.index)
    else all.set(p.mesh, { name: p.name, parts: [p.index], bytes: p.geometryBytes, triangles: p.triangles })
  }
  return [...all.values()].sort((a, b) => b.bytes - a.bytes)
})
const geometryBytes = computed(() => geometries.value.reduce((sum, g) => sum + g.bytes, 0))
const pictureBytes = computed(() => (scene.value?.pictures ?? []).reduce((sum, p) => sum + p.memory, 0))
/** What the design arrived with: a material for each set that has one. */
const sources = computed(() => {
  const sets = new Set(workspace.design.flatMap((p) => p.sets))
  return (scene.value?.sets ?? []).flatMap((s) => (s.source !== null && sets.has(s.index) ? [s.source] : []))
})
const CAME = [
  { how: 'COLOUR', one: 'a plain colour', many: 'plain colours' },
  { how: 'PICTURES', one: 'one with pictures', many: 'with pictures' },
  { how: 'FINISH', one: 'one with a finish of its own', many: 'with a finish of their own' },
] as const
/** How much of the source materials came along, and what wears them as they came. */
const came = computed(() => {
  const looks = workspace.state?.looks ?? []
  return CAME.flatMap(({ how, one, many }) => {
    const ids = new Set(sources.value.filter((id) => workspace.materials.get(id)?.came === how))
    if (ids.size === 0) return []
    const regions = (workspace.state?.regions ?? []).filter((r) => ids.has(looks[r.look]?.material ?? ''))
    return [{ how, says: ids.size === 1 ? one : `${ids.size} ${many}`, regions }]
  })
})
const triangles = computed(() => workspace.design.reduce((sum, p) => sum + p.triangles, 0))
/** Groups of the design: all but those around surroundings and in them. */
const groups = computed(() => {
  const gone = new Set<number>()
  for (const m of scene.value?.models ?? []) if (workspace.surroundings.has(m.index)) gone.add(m.group)
  for (const g of scene.value?.groups ?? []) if (gone.has(g.parent)) gone.add(g.index)
  return (scene.value?.groups.length ?? 0) - gone.size
})
const open = computed(() => workspace.design.filter((p) => !p.closed))
</script>

<template>
  <aside v-if="scene" class="card side-card" aria-label="What arrived">
    <h1 class="title">What arrived</h1>
    <p class="soft small file">{{ scene.fileName }}</p>
    <dl>
      <dt>Format</dt>
      <dd>{{ scene.origin.format }}</dd>
      <dt>Size</dt>
      <dd>
        {{ size }}
        <button class="plain link small" :aria-pressed="beside !== ''" @click="showScale">
          {{ beside ? `beside ${beside} · hide` : 'Show beside something known' }}
        </button>
      </dd>
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
        {{ counted(workspace.design.length, 'part') }} in {{ counted(groups, 'group') }}
        <span class="soft small">{{ counted(geometries.length, 'shape') }}, repeats kept once</span>
      </dd>
      <dt>Triangles</dt>
      <dd>
        {{ triangles.toLocaleString('en') }}
        <template v-if="workspace.surroundings.size === 0">in {{ counted(scene.faces, 'face') }}</template>
      </dd>
      <template v-if="scene.origin.cut && scene.origin.stray">
        <dt>Round surfaces</dt>
        <dd><CutAgain :cut="scene.origin.cut" :stray="scene.origin.stray" /></dd>
      </template>
      <dt>Source materials</dt>
      <dd>
        {{ sources.length.toLocaleString('en') }}
        <span v-for="c in came" :key="c.says" class="came">
          <button
            v-if="c.regions.length > 0"
            class="plain link"
            :title="`Select what still wears ${c.says}`"
            @click="workspace.select(c.regions)"
          >
            {{ c.says }}
          </button>
          <template v-else>{{ c.says }}</template>
        </span>
        <span v-if="came[0]?.how === 'COLOUR'" class="soft small">
          A colour says nothing of gloss, grain or glass: those stayed behind, and come from the tray.
        </span>
      </dd>
      <dt>Open parts</dt>
      <dd v-if="open.length === 0">None: every part is a closed body</dd>
      <dd v-else>
        <button class="plain link" @click="workspace.selectParts(open.map((p) => p.index))">
          {{ counted(open.length, 'part') }}
        </button>
        <span class="soft small">surfaces without an inside: no mass, and no solid glass</span>
      </dd>
    </dl>
    <MissingFold />
    <AttentionFold />
    <SelectionFold />
    <ModelsFold />
    <UpdateFold />
    <RolesFold />
    <SidesFold />
    <NamesFold />
    <MendFold />
    <DressingFold />
    <CleanUpFold />
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
          <button class="plain link" @click="workspace.selectParts(g.parts)">{{ g.name }}</button>
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
dd .small,
.came {
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
