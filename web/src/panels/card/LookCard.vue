<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { api, type Level, type Spot, type Stratum } from '../../api/client'
import { areaText } from '../shared/lengths'
import { counted, useWorkspace } from '../../stores/workspace'
import AngleCurve from './AngleCurve.vue'
import BodyChoice from './BodyChoice.vue'
import type { Card } from './card'
import ColourFold from './ColourFold.vue'
import EdgesRow from './EdgesRow.vue'
import FacesRow from './FacesRow.vue'
import FoldSection from './FoldSection.vue'
import GlossControl from './GlossControl.vue'
import GlowControl from './GlowControl.vue'
import MaterialHead from './MaterialHead.vue'
import MetalChoice from './MetalChoice.vue'
import OwnSurroundings from './OwnSurroundings.vue'
import ParameterControl from './ParameterControl.vue'
import PictureFor from './PictureFor.vue'
import ReliefControl from './ReliefControl.vue'
import CandidateRow from './CandidateRow.vue'
import GoesTo from './GoesTo.vue'
import RulesFold from './RulesFold.vue'
import KeepRow from './KeepRow.vue'
import NotesRow from './NotesRow.vue'
import SidesRow from './SidesRow.vue'
import StrataBars from './StrataBars.vue'
import SuitsFold from './SuitsFold.vue'
import TakeOver from './TakeOver.vue'
import SubstanceFold from './SubstanceFold.vue'
import SubstanceChoice from './SubstanceChoice.vue'
import WishSlider from './WishSlider.vue'
import { useAdjustment } from './useAdjustment'

/** Folds below the first controls: what of the parameters is in each, as core sorts them. */
const FOLDS = [
  { title: 'Body', folds: ['colour'] },
  { title: 'Finish', folds: ['finish'] },
  { title: 'Reflection by angle', folds: ['angle'] },
  { title: 'What it mirrors', folds: ['around'] },
  { title: 'Coat', folds: ['coat'] },
  { title: 'Flakes', folds: ['flakes'] },
  { title: 'Fuzz and film', folds: ['fuzz', 'film'] },
  { title: 'Transparency', folds: ['transparency'] },
  { title: 'Below the surface', folds: ['below'] },
  { title: 'Ageing', folds: ['ageing'] },
  { title: 'Leaves', folds: ['leaves'] },
  { title: 'Surface', folds: ['surface'] },
  { title: 'Glow', folds: ['glow'] },
]
const workspace = useWorkspace()
const region = computed(() => workspace.current)
const onlyThese = ref(false)
/** Whether something that is left open is being written down. */
const noting = ref(false)
/** Whether a change leaves the other schemes as they are. */
const here = ref(false)
const chosen = computed(() => [...new Set(workspace.selection.map((r) => r.part))])
const only = computed(() => (onlyThese.value ? chosen.value : null))
const { material, attempt, commit, limit, hasChanged, showBefore, showsBefore, discard, keep } =
  useAdjustment(region, only, here)

const leaves = computed(() => (region.value ? workspace.leavesOn(region.value) : 0))
const part = computed(() => (region.value ? workspace.scene?.parts[region.value.part] : undefined))
const group = computed(() => {
  const index = part.value?.group ?? -1
  return index < 0 ? '' : (workspace.scene?.groups[index]?.name ?? '')
})
const look = computed(() => (region.value ? workspace.lookOf(region.value, workspace.behind) : null))
const sharing = computed(() => {
  const at = region.value
  return at ? new Set(workspace.sharing(at, workspace.behind).map((r) => r.part)).size : 0
})
watch([region, () => workspace.scheme?.id], () => {
  onlyThese.value = false
  here.value = false
})

/** To look what is seen of more parts takes a while. */
const MANY = 200
/** Of what is selected, what nothing lies on. */
async function onlySeen() {
  const before = chosen.value
  if (before.length > MANY) workspace.tell(`Looking what one sees of ${counted(before.length, 'part')} …`)
  try {
    const seen = await api.seenOf(workspace.id, workspace.schemeInView, before)
    if (chosen.value !== before) return
    if (seen.length === 0) {
      workspace.tell('None of it is seen: it is all covered.')
      return
    }
    workspace.select(seen, workspace.metBehind)
    const parts = new Set(seen.map((r) => r.part)).size
    workspace.tell(`${counted(parts, 'part')} of ${before.length} are seen`)
  } catch (e) {
    workspace.report(e)
  }
}

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
  const from = material.value?.parent ?? material.value?.origin
  return from ? workspace.materials.get(from) : undefined
})
const originValues = computed(() => origin.value?.values as Record<string, unknown> | undefined)

const card = computed<Card | null>(() =>
  material.value
    ? {
        material: material.value,
        control: (name) => workspace.controls.controls.find((c) => c.name === name),
        number: (name) => (typeof values.value[name] === 'number' ? values.value[name] : 0),
        linear: (name) => (Array.isArray(values.value[name]) ? (values.value[name] as number[]) : [0, 0, 0]),
        flag: (name) => values.value[name] === true,
        changed: (name) =>
          originValues.value !== undefined &&
          JSON.stringify(originValues.value[name]) !== JSON.stringify(values.value[name]),
        attempt,
        commit,
        reset: (name) => {
          const v = originValues.value?.[name]
          if (v !== undefined) void commit({ [name]: v })
        },
      }
    : null,
)

const sheet = computed(() => workspace.controls.kinds.find((k) => k.kind === material.value?.kind))
const allFirst = computed(() => sheet.value?.first ?? workspace.controls.first)
const first = computed(() => allFirst.value.filter((name) => name !== 'colour'))
/** What need not be shown again below. */
const shownFirst = computed(() => {
  const all = new Set(first.value)
  if (all.has('substance')) all.add('specular_ior')
  if (all.has('body')) all.add('geometry_thin_walled')
  return all
})
const firstHasColour = computed(() => allFirst.value.includes('colour'))
const openSolid = computed(
  () =>
    (card.value?.number('transmission_weight') ?? 0) > 0 &&
    !card.value?.flag('geometry_thin_walled') &&
    part.value?.closed === false,
)
/** Wishes, and a height that does nothing without its picture, have controls of their own. */
const APART = [
  'gloss',
  'haze',
  'relief',
  'lumens',
  'temperature',
  'age',
  'geometry_height',
  'geometry_displaced',
]
const folds = computed(() =>
  FOLDS.map((f) => {
    const controls = workspace.controls.controls.filter(
      (c) => f.folds.includes(c.fold) && !shownFirst.value.has(c.name) && !APART.includes(c.name),
    )
    return {
      ...f,
      controls,
      pictured: workspace.controls.controls.filter((c) => f.folds.includes(c.fold)),
      summary: summaryOf(f.title, controls.filter((c) => isSet(c.name, c.standard)).length),
    }
  }).filter(
    (f) =>
      !(f.title === 'Surface' && shownFirst.value.has('relief')) &&
      !(f.title === 'Glow' && shownFirst.value.has('emission_luminance')),
  ),
)
function isSet(parameter: string, standard: unknown): boolean {
  return JSON.stringify(values.value[parameter]) !== JSON.stringify(standard)
}
function summaryOf(title: string, set: number): string {
  if (title === 'Finish') return material.value?.finish ?? ''
  if (title === 'Ageing') return material.value?.ageWord ?? ''
  return set > 0 ? `${set} set` : ''
}
const toOrigin = computed(() => {
  const m = origin.value
  if (!m || !material.value?.adjusted) return null
  const name = material.value.parent
    ? `Back to ${m.name}`
    : m.arrived
      ? 'Back to how it arrived'
      : 'Back to the library’s'
  return { name, whole: m.whole }
})

/** Whether nobody has put anything on it: then something is suggested. */
const isUndressed = computed(() => look.value?.from === null)
const own = computed(() => workspace.state?.palette.some((u) => u.material.id === material.value?.id))
const madeOf = computed(() => {
  const f = material.value?.facts
  if (!f?.hasSubstance) return 'not known'
  return f.substance ?? (f.density ? `${f.density.toLocaleString('en')} kg/m³` : '')
})

function take(s: Stratum) {
  void workspace.assign(where(s), null)
}
function give(s: Stratum) {
  if (workspace.chosen) void workspace.assign(where(s), workspace.chosen)
}
/** A level of the one thing that is selected, or of all; a group is the one that the bar names. */
function where(s: Stratum) {
  const level = s.level as Level
  return level === 'group' || level === 'face' || chosen.value.length < 2
    ? { level, target: s.target, side: s.side }
    : { level, regions: workspace.selection }
}
function spot(s: Stratum): Spot {
  return { level: s.level as Level, target: s.target }
}
function asInBase(s: Stratum) {
  void workspace.run((v) => api.asInBase(workspace.id, v, spot(s), s.side))
}
function takeOff(extent: 'LADDER' | 'MATERIAL') {
  const at = region.value
  const { behind } = workspace
  if (at)
    void workspace.run((v) => api.takeOff(workspace.id, v, { part: at.part, span: at.span, extent }, behind))
}
function putOnTop(s: Stratum) {
  void workspace.run((v) => api.putOnTop(workspace.id, v, spot(s), s.side, !s.onTop))
}
function useNear(id: string) {
  if (region.value) void workspace.assign({ level: null, regions: workspace.selection }, id)
}

function key(e: KeyboardEvent) {
  const typing = e.target instanceof HTMLElement && ['INPUT', 'SELECT', 'TEXTAREA'].includes(e.target.tagName)
  if (e.code === 'KeyB' && !e.repeat && !typing && !e.ctrlKey && !e.metaKey) showBefore(e.type === 'keydown')
}
onMounted(() => {
  window.addEventListener('keydown', key)
  window.addEventListener('keyup', key)
})
onBeforeUnmount(() => {
  window.removeEventListener('keydown', key)
  window.removeEventListener('keyup', key)
})
</script>

<template>
  <aside class="card side-card" aria-label="Look">
    <div v-if="(!region || !part) && !(workspace.edited && material)" class="empty soft">
      <p class="title">Nothing selected</p>
      <p>Click a part on the stage or in the ledger to see and change its look.</p>
      <p>
        Or drag a chip from the tray onto the model: the part under the cursor shows it before you let go.
      </p>
      <RulesFold />
    </div>
    <template v-else>
      <header v-if="!part" class="head">
        <h1 class="title">In the palette, on nothing yet</h1>
      </header>
      <header v-else class="head">
        <h1 class="title">{{ part.name }}</h1>
        <KeepRow v-model:noting="noting" :parts="chosen" />
      </header>
      <p v-if="part" class="soft small">
        <template v-if="group">in {{ group }} · </template>{{ size }}
        <template v-if="chosen.length > 1">
          · {{ chosen.length }} parts selected
          <button
            class="plain link"
            title="Leaves out what is covered by something else: of a wall’s layers the finish stays"
            @click="onlySeen"
          >
            Only what one sees
          </button>
        </template>
      </p>
      <template v-if="region && part">
        <FacesRow v-if="chosen.length === 1" :key="part.index" :part="part" :region="region" />
        <NotesRow v-model:writing="noting" :part="part.index" />
        <SidesRow />
        <StrataBars
          :why="workspace.why"
          :arrived="look?.from === null"
          @take="take"
          @give="give"
          @top="putOnTop"
          @back="asInBase"
          @off="takeOff"
        />
        <GoesTo v-if="workspace.schemes.length > 1" />
        <CandidateRow />
        <SuitsFold v-if="isUndressed" :part="part.index" @take="useNear" />
      </template>
      <div v-if="!material || !card" class="empty soft">
        <p>This part arrived without a material. Drag a chip onto it, or start from a colour of its own.</p>
        <v-btn @click="commit({ base_color: [0.5, 0.5, 0.5] })">Give it a colour</v-btn>
      </div>
      <template v-else>
        <MaterialHead
          v-model:only="onlyThese"
          v-model:here="here"
          :material="material"
          :of="card"
          :sharing="sharing"
          :chosen="chosen"
        />
        <div v-if="hasChanged" class="session small" aria-label="Changes since you selected it">
          <button
            class="plain"
            title="Hold, or hold B, to see what it was when you selected it"
            @pointerdown="showBefore(true)"
            @pointerup="showBefore(false)"
            @pointerleave="showBefore(false)"
          >
            {{ showsBefore ? 'Showing before' : 'Hold to see before' }}
          </button>
          <button class="plain" title="Puts everything back as it was when you selected it" @click="discard">
            Discard
          </button>
          <button class="plain" title="What it is now counts as “before” from here on" @click="keep">
            Keep
          </button>
        </div>
        <ColourFold v-if="firstHasColour" :key="material.colourParameter" :of="card" @take="useNear" />
        <section class="fold" aria-label="First controls">
          <template v-for="name in first" :key="name">
            <GlossControl v-if="name === 'gloss'" :of="card" :limit="limit" />
            <MetalChoice v-else-if="name === 'metal'" :of="card" />
            <SubstanceChoice v-else-if="name === 'substance'" :of="card" />
            <BodyChoice v-else-if="name === 'body'" :of="card" :open="openSolid" />
            <ReliefControl v-else-if="name === 'relief'" :of="card" />
            <template v-else-if="name !== 'temperature'">
              <GlowControl v-if="name === 'emission_luminance'" :of="card" :area="part?.area ?? 1" />
              <ParameterControl v-else :parameter="name" :of="card" />
            </template>
          </template>
          <EdgesRow :of="card" :only="only" />
          <p v-for="r in material.remarks" :key="r.kind" class="remark small">
            {{ r.says }}
            <button v-if="r.fix" class="plain small link" @click="commit(r.fix.values)">
              {{ r.fix.label }}
            </button>
          </p>
          <button
            v-if="toOrigin"
            class="plain small link"
            title="Every value as it is there"
            @click="commit({ whole: toOrigin.whole })"
          >
            {{ toOrigin.name }}
          </button>
        </section>
        <FoldSection v-for="f in folds" :key="f.title" :title="f.title" :summary="f.summary">
          <AngleCurve v-if="f.title === 'Reflection by angle'" :of="card" />
          <OwnSurroundings v-else-if="f.title === 'What it mirrors'" :of="card" />
          <GlowControl v-else-if="f.title === 'Glow'" :of="card" :area="part?.area ?? 1" />
          <template v-else>
            <GlossControl v-if="f.title === 'Finish' && !first.includes('gloss')" :of="card" :limit="limit" />
            <WishSlider
              v-if="f.title === 'Ageing' && (!sheet || sheet.ages.length > 0)"
              wish="age"
              :value="material.age"
              :of="card"
              :changed="material.age > 0"
              @reset="commit({ age: 0 })"
            />
            <p v-if="f.title === 'Leaves' && leaves > 0 && part" class="soft small">
              {{ counted(leaves, 'leaf', 'leaves') }} on {{ part.name }}
            </p>
            <ReliefControl v-if="f.title === 'Surface' && !first.includes('relief')" :of="card" />
            <template v-for="c in f.controls" :key="c.name">
              <SubstanceChoice v-if="c.name === 'specular_ior'" :of="card" />
              <BodyChoice v-else-if="c.name === 'geometry_thin_walled'" :of="card" :open="openSolid" />
              <ParameterControl v-else :parameter="c.name" :of="card" />
            </template>
            <WishSlider
              v-if="f.title === 'Finish' && material.haze !== null"
              wish="haze"
              :value="material.haze"
              :of="card"
              :changed="material.haze > 0"
              @reset="commit({ haze: 0 })"
            />
            <MetalChoice v-if="f.title === 'Finish' && material.kind !== 'metal'" :of="card" />
            <PictureFor :controls="f.pictured" :of="card" />
          </template>
        </FoldSection>
        <FoldSection v-if="own" title="Made of" :summary="madeOf">
          <SubstanceFold :material="material" />
        </FoldSection>
        <FoldSection title="Values from elsewhere">
          <TakeOver :of="card" :folds="FOLDS" />
        </FoldSection>
      </template>
    </template>
  </aside>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 8px;
}
.empty {
  display: grid;
  gap: 8px;
  padding-top: 4px;
}
.empty .title {
  color: var(--ink);
}
.session {
  display: flex;
  gap: 14px;
  padding: 4px 0;
}
.session button,
.link {
  color: var(--accent);
}
.session button:first-child {
  flex: 1;
}
.remark {
  color: var(--amber);
  margin-top: 4px;
}
</style>
