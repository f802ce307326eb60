<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type Level, type Values } from '../../api/client'
import OneOf from '../shared/OneOf.vue'
import { areaText } from '../shared/lengths'
import { counted, useWorkspace } from '../../stores/workspace'
import ParameterRow from './ParameterRow.vue'
import ColourFold from './ColourFold.vue'
import StrataBars from './StrataBars.vue'
import { useAdjustment } from './useAdjustment'

const workspace = useWorkspace()
const region = computed(() => workspace.current)
const onlyPart = ref(false)
const { material, attempt, commit } = useAdjustment(region, onlyPart)

const part = computed(() => (region.value ? workspace.scene?.parts[region.value.part] : undefined))
const group = computed(() => {
  const index = part.value?.group ?? -1
  return index < 0 ? '' : (workspace.scene?.groups[index]?.name ?? '')
})
const selectedParts = computed(() => new Set(workspace.selection.map((r) => r.part)).size)
const look = computed(() => (region.value ? workspace.lookOf(region.value) : null))
const sharing = computed(() => {
  const at = region.value
  return at ? new Set(workspace.sharing(at).map((r) => r.part)).size : 0
})

watch(region, () => (onlyPart.value = false))

const size = computed(() => {
  const p = part.value
  const s = workspace.state
  if (!p || !s) return ''
  const lengths = p.size.map((m) => (m / s.unitMetres).toFixed(s.unitDecimals))
  const area = areaText(p.area, workspace.state?.unit)
  return `${lengths.join(' × ')} ${s.unit} · ${area}`
})

const values = computed(() => (material.value?.values ?? {}) as Record<string, unknown>)
const origin = computed(() => {
  const from = material.value?.origin
  return from ? (workspace.materials.get(from)?.values as Record<string, unknown> | undefined) : undefined
})
function number(name: string): number {
  const v = values.value[name]
  return typeof v === 'number' ? v : 0
}
function changed(name: string): boolean {
  return origin.value !== undefined && origin.value[name] !== values.value[name]
}
function reset(name: string) {
  const v = origin.value?.[name]
  if (v !== undefined) void commit({ [name]: v } as Values)
}

const parameters = { number, changed, attempt, commit, reset }

const isClear = computed(() => number('transmission_weight') > 0)
const isThin = computed({
  get: () => values.value['geometry_thin_walled'] === true,
  set: (thin) => commit({ geometry_thin_walled: thin }),
})
const BODIES = [
  { value: false, text: 'Solid body', title: 'Bends light; its colour deepens with thickness' },
  { value: true, text: 'Thin pane', title: 'A pane or film: nothing is bent' },
]
const openSolid = computed(() => isClear.value && !isThin.value && part.value?.closed === false)
const transparency = computed(() => {
  if (isClear.value)
    return `IOR ${number('specular_ior').toFixed(3)}, ${isThin.value ? 'thin pane' : 'solid'}`
  return number('geometry_opacity') < 1 ? 'partly there' : 'opaque'
})

const renaming = ref<string | null>(null)
async function rename() {
  const m = material.value
  const name = renaming.value?.trim()
  renaming.value = null
  if (m && name && name !== m.name) {
    await workspace.run((v) => api.renameMaterial(workspace.id, v, m.id, name))
  }
}

function take(level: Level) {
  if (region.value) void workspace.assign(level, [region.value], null)
}
function give(level: Level) {
  if (region.value && workspace.chosen) void workspace.assign(level, [region.value], workspace.chosen)
}
</script>

<template>
  <aside class="card side-card" aria-label="Look">
    <div v-if="!region || !part" class="empty soft">
      <p class="title">Nothing selected</p>
      <p>Click a part on the stage or in the ledger to see and change its look.</p>
      <p>
        Or drag a chip from the tray onto the model: the part under the cursor shows it before you let go.
      </p>
    </div>
    <template v-else>
      <h1 class="title">{{ part.name }}</h1>
      <p class="soft small">
        <template v-if="group">in {{ group }} · </template>{{ size }}
        <template v-if="selectedParts > 1"> · {{ selectedParts }} parts selected</template>
      </p>
      <StrataBars :strata="workspace.strata" :arrived="look?.from === null" @take="take" @give="give" />
      <div v-if="!material" class="empty soft">
        <p>This part arrived without a material. Drag a chip onto it, or start from a colour of its own.</p>
        <v-btn @click="commit({ base_color: [0.5, 0.5, 0.5] })">Give it a colour</v-btn>
      </div>
      <template v-else>
        <div class="fold name">
          <input
            v-if="renaming !== null"
            v-model="renaming"
            class="field"
            aria-label="Material name"
            autofocus
            @keydown.enter="rename"
            @keydown.esc="renaming = null"
            @blur="rename"
          />
          <button
            v-else
            class="plain"
            title="Rename this material"
            :disabled="material.arrived"
            @click="renaming = material.name"
          >
            <b>{{ material.code }}</b> {{ material.name }}
            <span v-if="material.arrived" class="soft small">as it arrived</span>
            <span v-else-if="material.adjusted" class="soft small">adjusted</span>
          </button>
          <div class="scope" role="radiogroup" aria-label="What a change touches">
            <button
              role="radio"
              :aria-checked="!onlyPart"
              :class="{ on: !onlyPart }"
              @click="onlyPart = false"
            >
              {{ sharing === 1 ? 'This part has it alone' : `All ${counted(sharing, 'part')} with it` }}
            </button>
            <button
              v-if="sharing > 1"
              role="radio"
              :aria-checked="onlyPart"
              :class="{ on: onlyPart }"
              @click="onlyPart = true"
            >
              Only this part
            </button>
          </div>
        </div>
        <ColourFold
          :key="material.colourParameter"
          :material="material"
          @attempt="attempt"
          @commit="commit"
        />
        <section class="fold" aria-label="Finish">
          <h2>
            Finish <small>{{ material.finish }}</small>
          </h2>
          <ParameterRow
            label="Roughness"
            parameter="specular_roughness"
            :of="parameters"
            :step="0.01"
            track="linear-gradient(90deg,#fff,#cfcdc8 40%,#8d8a85)"
            hint="How blurred reflections are: 0 is a mirror, 0.3 satin enamel, 1 dead matt."
          />
          <ParameterRow
            label="Metalness"
            parameter="base_metalness"
            :of="parameters"
            hint="1 for bare metal, which tints what it reflects; 0 for everything else."
          />
          <ParameterRow
            label="Clear coat"
            parameter="coat_weight"
            :of="parameters"
            hint="A second, sharp gloss layer over the finish: 1 for lacquer or enamel glaze."
          />
          <ParameterRow
            v-if="number('coat_weight') > 0"
            label="Coat blur"
            parameter="coat_roughness"
            :of="parameters"
            hint="Roughness of the coat: 0 is wet, 0.3 rubbed down."
          />
          <ParameterRow
            label="Fuzz"
            parameter="fuzz_weight"
            :of="parameters"
            hint="Fine fibres that catch light at the edge: 0.3 for cotton, 0.6 for felt."
          />
        </section>
        <section class="fold" aria-label="Transparency">
          <h2>
            Transparency <small>{{ transparency }}</small>
          </h2>
          <ParameterRow
            label="Clear"
            parameter="transmission_weight"
            :of="parameters"
            hint="How much light passes through the body: 1 for glass. Reflections keep their strength."
          />
          <ParameterRow
            label="IOR"
            parameter="specular_ior"
            :of="parameters"
            :min="1"
            :max="3"
            :step="0.01"
            :decimals="3"
            hint="Index of refraction, for reflection and bending alike: water 1.333, glass 1.52."
          />
          <div class="pair">
            <span />
            <select
              class="field"
              aria-label="IOR of a substance"
              :value="
                workspace.substances.find((s) => Math.abs(s.ior - number('specular_ior')) < 0.0005)?.ior ?? ''
              "
              @change="commit({ specular_ior: Number(($event.target as HTMLSelectElement).value) })"
            >
              <option value="" disabled>Index of a substance …</option>
              <option v-for="s in workspace.substances" :key="s.name" :value="s.ior">
                {{ s.name }} {{ s.ior }}, light at {{ Math.round(100 * s.lightShare) }} %
              </option>
            </select>
          </div>
          <template v-if="isClear">
            <OneOf v-model="isThin" label="Body" :choices="BODIES" />
            <p v-if="openSolid" class="small warn">
              This part is not closed, so it can’t show as a solid body; it shows as a thin pane.
            </p>
            <ParameterRow
              v-if="!isThin"
              label="Colour depth"
              parameter="transmission_depth"
              :scale="1000"
              :of="parameters"
              :max="100"
              :step="1"
              :decimals="1"
              unit=" mm"
              hint="Thickness at which the colour is reached: small is deep colour. 0 tints at the surface."
            />
          </template>
          <ParameterRow
            label="Opacity"
            parameter="geometry_opacity"
            :of="parameters"
            hint="How much of the surface is there at all, as in mesh or gauze. Leave at 1 for glass."
          />
        </section>
      </template>
    </template>
  </aside>
</template>

<style scoped>
.empty {
  display: grid;
  gap: 8px;
  padding-top: 4px;
}
.empty .title {
  color: var(--ink);
}
.name {
  display: grid;
  gap: 8px;
  margin-top: 10px;
}
.pair {
  display: grid;
  grid-template-columns: 86px 1fr;
  gap: 10px;
  margin: 2px 0 4px;
}
.warn {
  color: var(--amber);
}
</style>
