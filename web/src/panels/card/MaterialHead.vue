<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type Material } from '../../api/client'
import { counted, useWorkspace } from '../../stores/workspace'
import type { Card } from './card'
import KeptFold from './KeptFold.vue'
import ColourSliders from './ColourSliders.vue'

/** Which material it is, of which kind, how far a change reaches, and what can be made of it. */
const props = defineProps<{ material: Material; of: Card; sharing: number; chosen: number[] }>()
const only = defineModel<boolean>('only', { required: true })
const here = defineModel<boolean>('here', { required: true })
const workspace = useWorkspace()
const renaming = ref<string | null>(null)
/** The name of a copy that is to be made, and whether it follows. */
const copying = ref<{ name: string; variation: boolean; colour: number[] | null } | null>(null)
watch(
  () => props.material.id,
  () => (copying.value = null),
)

const kinds = computed(() => workspace.controls.kinds)
const sheet = computed(() => kinds.value.find((k) => k.kind === props.material.kind))
const parent = computed(() =>
  props.material.parent ? workspace.materials.get(props.material.parent) : undefined,
)
const variations = computed(
  () => (workspace.state?.palette ?? []).filter((u) => u.material.parent === props.material.id).length,
)
const scopes = computed(() => {
  const few = props.chosen.length === 1 ? 'Only this part' : `Only these ${props.chosen.length}`
  const also = variations.value > 0 ? ` and ${counted(variations.value, 'variation')}` : ''
  return props.sharing <= props.chosen.length
    ? [
        {
          value: false,
          text:
            (props.sharing === 0
              ? 'It is on nothing yet'
              : props.sharing === 1
                ? 'This part has it alone'
                : `All ${counted(props.sharing, 'part')} with it`) + also,
        },
      ]
    : [
        { value: false, text: `All ${counted(props.sharing, 'part')} with it${also}` },
        { value: true, text: few },
      ]
})
/** Letters of the other schemes that have it, too. */
const elsewhere = computed(
  () => workspace.state?.palette.find((u) => u.material.id === props.material.id)?.in ?? [],
)
const own = computed(
  () => !props.material.arrived && workspace.state?.palette.some((u) => u.material.id === props.material.id),
)

async function rename() {
  const m = props.material
  const name = renaming.value?.trim()
  renaming.value = null
  if (name && name !== m.name) await workspace.run((v) => api.renameMaterial(workspace.id, v, m.id, name))
}

/** The chip that was chosen in the tray, where it is another material. */
const chip = computed(() => {
  const m = workspace.chosen ? workspace.materials.get(workspace.chosen) : undefined
  return m && m.id !== props.material.id && m.id !== props.material.origin ? m : undefined
})
/** How far a replacement can reach, and in which words. */
const reaches = computed(() => {
  const scheme = workspace.scheme
  return [
    { text: 'everywhere', says: 'in every scheme', parts: null, schemes: null },
    ...(scheme && workspace.schemes.length > 1
      ? [
          {
            text: `in ${scheme.letter}`,
            says: `in scheme ${scheme.letter} alone`,
            parts: null,
            schemes: [scheme.id],
          },
        ]
      : []),
    ...(scheme && props.chosen.length < props.sharing
      ? [
          {
            text: props.chosen.length === 1 ? 'here' : `on these ${props.chosen.length}`,
            says: 'on the selection alone',
            parts: props.chosen,
            schemes: [scheme.id],
          },
        ]
      : []),
  ]
})
async function replace({ says, parts, schemes }: (typeof reaches.value)[number]) {
  const by = chip.value
  if (!by) return
  const how = { by: by.id, parts, schemes }
  if (await workspace.run((v) => api.replaceMaterial(workspace.id, v, props.material.id, how)))
    workspace.tell(`${by.name} instead of ${props.material.name}, ${says}`)
}

async function copy() {
  const c = copying.value
  copying.value = null
  if (!c?.name.trim()) return
  const made = { name: c.name.trim(), variation: c.variation, parts: props.chosen, colour: c.colour }
  const done = await workspace.run((v) => api.copyMaterial(workspace.id, v, props.material.id, made))
  if (done) workspace.tell(`${made.name} · ${counted(props.chosen.length, 'part')}`)
}
</script>

<template>
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
      <span v-else-if="parent" class="soft small">variation of {{ parent.name }}</span>
      <span v-else-if="material.adjusted" class="soft small">adjusted</span>
    </button>
    <div class="pair">
      <select
        class="field"
        aria-label="Kind"
        title="What it is. Colour, pictures and gloss stay when you change it."
        :value="material.kind ?? ''"
        @change="of.commit({ kind: ($event.target as HTMLSelectElement).value })"
      >
        <option value="" disabled>Kind …</option>
        <option v-for="k in kinds" :key="k.kind" :value="k.kind">{{ k.kind }}</option>
      </select>
      <select
        v-if="sheet"
        class="field"
        aria-label="Kind within the kind"
        title="Settles what belongs to it; all else stays."
        :value="material.subKind ?? ''"
        @change="of.commit({ sub_kind: ($event.target as HTMLSelectElement).value })"
      >
        <option value="" disabled>its own values</option>
        <option v-for="s in sheet.subKinds" :key="s.name" :value="s.name" :title="s.says">
          {{ s.name }}
        </option>
      </select>
    </div>
    <div class="scope" role="radiogroup" aria-label="What a change touches">
      <button
        v-for="s in scopes"
        :key="s.text"
        role="radio"
        :aria-checked="only === s.value"
        :class="{ on: only === s.value }"
        @click="only = s.value"
      >
        {{ s.text }}
      </button>
    </div>
    <label v-if="elsewhere.length > 0 && !only" class="small here">
      <input v-model="here" type="checkbox" />
      <span>
        Also in {{ elsewhere.length > 1 ? 'schemes' : 'scheme' }} {{ elsewhere.join(', ') }}
        <small class="soft">Tick to change it in {{ workspace.scheme?.letter }} alone</small>
      </span>
    </label>
    <template v-if="copying">
      <b v-if="copying.colour" class="small">Colour of {{ copying.name }}</b>
      <ColourSliders
        v-if="copying.colour"
        :linear="copying.colour"
        :known="material.colour"
        @attempt="copying.colour = $event"
        @commit="copying.colour = $event"
      />
      <div v-else class="made small">
        <button class="plain" @click="copying.colour = of.linear(material.colourParameter)">
          In another colour
        </button>
      </div>
    </template>
    <div v-if="copying" class="pair">
      <input
        v-model="copying.name"
        class="field"
        :aria-label="copying.variation ? 'Name of the variation' : 'Name of the copy'"
        autofocus
        @keydown.enter="copy"
        @keydown.esc="copying = null"
      />
      <v-btn size="small" @click="copy">{{
        chosen.length > 0 ? `Give it to ${counted(chosen.length, 'part')}` : 'Lay it in the palette'
      }}</v-btn>
    </div>
    <div v-else class="made small">
      <button
        class="plain"
        title="Another material, independent of this one, for the selection"
        @click="copying = { name: `${material.name} 2`, variation: false, colour: null }"
      >
        Duplicate
      </button>
      <button
        v-if="own"
        class="plain"
        title="A material that follows this one in all that you don’t change about it"
        @click="copying = { name: `${material.name}, variation`, variation: true, colour: null }"
      >
        Make variation
      </button>
      <button
        v-if="parent"
        class="plain"
        :title="`Follows ${parent.name} no longer; stays as it looks`"
        @click="workspace.run((v) => api.makeIndependent(workspace.id, v, material.id))"
      >
        Make independent
      </button>
      <a
        :href="api.materialFileAddress(workspace.id, 'mtlx', material.id)"
        download
        title="MaterialX with its pictures in a zip, for other projects and programs"
        >Save as file</a
      >
    </div>
    <div v-if="!copying" class="made small">
      <span class="soft">Replace by {{ chip?.name ?? 'a chip of the tray' }}</span>
      <button
        v-for="r in reaches"
        :key="r.text"
        class="plain"
        :disabled="!chip"
        :title="
          chip
            ? `${chip.name} wherever ${material.name} is, ${r.says}; mappings stay`
            : 'Choose a chip in the tray first'
        "
        @click="replace(r)"
      >
        {{ r.text }}
      </button>
    </div>
    <KeptFold v-if="own" :material="material" />
  </div>
</template>

<style scoped>
.name {
  display: grid;
  gap: 8px;
  margin-top: 10px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.here {
  display: flex;
  gap: 6px;
  align-items: baseline;
}
.here small {
  display: block;
}
.made {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
}
.made button:disabled {
  color: var(--soft);
}
.made button,
.made a {
  color: var(--accent);
  text-decoration: none;
}
</style>
