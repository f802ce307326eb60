<script setup lang="ts">
import { mdiCameraIris, mdiEyeOutline, mdiFitToScreenOutline, mdiLayersOutline } from '@mdi/js'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { api, bytesAt, type Scene, type Sides, type Spot, type Trial, type Why } from '../../api/client'
import type { Pulled } from '../../stage/placeHandles'
import type { AgeingNews } from '../../stage/ageing'
import { Stage, type Place, type Region } from '../../stage/Stage'
import { loadImage } from '../../stage/surfaces'
import { useColleagues } from '../../stores/colleagues'
import { useDrag } from '../../stores/drag'
import { useFinding } from '../../stores/finding'
import { useOwnFace } from '../../stores/ownFace'
import { useProof } from '../../stores/proof'
import { stageHandle } from '../../stores/stageHandle'
import { useLight } from '../../stores/light'
import { counted, useWorkspace } from '../../stores/workspace'
import { useViews } from '../../stores/views'
import { AIDS, isDiagram } from '../shared/aids'
import { timeLeft } from '../shared/timeLeft'
import DiagramLegend from './DiagramLegend.vue'
import ProofNote from './ProofNote.vue'
import ViewsMenu from './ViewsMenu.vue'
import WhyPanel from './WhyPanel.vue'

const workspace = useWorkspace()
const light = useLight()
const drag = useDrag()
const finding = useFinding()
const colleagues = useColleagues()
const views = useViews()
const cutting = useOwnFace()
const proof = useProof()
const element = ref<HTMLElement | null>(null)
const failed = ref('')
/** How far it has come that parts' ages are worked out. */
const ageing = ref<AgeingNews>({ left: 0, seconds: null, stopped: false })
const hovered = shallowRef<Place | null>(null)
let trial = 0
const id = workspace.id // the project is closed before this view is gone

/** The stage begins once the rest of the page has been drawn: making a 3D view takes a while. */
let beginning = 0
onMounted(() => {
  drag.setDrop(drop)
  beginning = requestAnimationFrame(() => {
    beginning = window.setTimeout(begin)
  })
})

function begin() {
  if (!element.value) return
  try {
    const stage = new Stage(element.value, {
      mesh: (sha256) => bytesAt(api.assetAddress(id, sha256)),
      image: (sha256) => loadImage(api.assetAddress(id, sha256)),
      relief: (sha256) => api.relief(id, sha256),
      surroundings: api.surroundings,
      ageing: (part, corrodes) => bytesAt(api.ageingAddress(id, part, corrodes)),
      leaves: (part, span, size) => bytesAt(api.leavesAddress(id, part, span, size)),
      shape: (part) => bytesAt(api.shapeAddress(id, workspace.schemeInView, part)),
      outer: (part) => bytesAt(api.outerAddress(id, part, views.current?.id ?? null)),
    })
    stage.on('pick', pick)
    stage.on('twice', circle)
    stage.on('pull', pull)
    stage.on('moved', proof.forget)
    stage.on('passing', (is) => (proof.passing = is))
    stage.on('ageing', (news) => (ageing.value = news))
    stage.on('problem', (e) => workspace.report(e))
    stage.on('leaves', (count) => (workspace.leavesOn = (r) => count(r)))
    stageHandle.value = stage
    void stage.setLight(light.shown)
    if (workspace.state) stage.setLooks(workspace.state.looks, workspace.state.regions)
    if (workspace.scene) void show(workspace.scene).then(() => window.setTimeout(keepFirstThumbnail, 2500))
  } catch {
    failed.value =
      'This browser can’t draw in 3D (WebGL 2 is off). Switch hardware acceleration on, or use another browser.'
  }
}

async function show(scene: Scene) {
  try {
    await stageHandle.value?.show(scene)
    showHandles(false)
  } catch {
    failed.value = 'Some of the model could not be fetched. Reload the page to try it once more.'
  }
}

onBeforeUnmount(() => {
  cancelAnimationFrame(beginning)
  window.clearTimeout(beginning)
  keepThumbnail()
  drag.setDrop(null)
  stageHandle.value?.dispose()
  stageHandle.value = null
})

watch(
  () => workspace.scene,
  (scene, before) => {
    if (scene && before && !workspace.preview && scene.projectId === before.projectId) {
      if (isSameShape(scene, before) && !workspace.pulled) stageHandle.value?.arrange(scene)
      else void show(scene)
    }
  },
)
/** Names may have changed; shapes and places have not. */
function isSameShape(a: Scene, b: Scene): boolean {
  return (
    a.parts.length === b.parts.length &&
    a.parts.every((p, i) => {
      const other = b.parts[i]
      return p.mesh === other?.mesh && p.world.every((m, k) => m === other.world[k])
    })
  )
}

const WHITE = '#efede9'
/** The mean colour of what each span wears. */
function meanColours(): string[][] {
  return (workspace.scene?.parts ?? []).map((p) =>
    p.sets.map((_, span) => {
      const m = workspace.materialOf({ part: p.index, span })
      return m ? finding.seen(m).hex : '#b9b9b7'
    }),
  )
}
watch(
  () => (workspace.shown === 'plain' && !workspace.preview ? meanColours() : null),
  (colours) => {
    if (colours) stageHandle.value?.showColours(colours)
  },
)
/** What the stage tells surfaces apart by, if it does. */
const by = computed(() =>
  isDiagram(workspace.shown) && !workspace.preview && workspace.state ? workspace.shown : null,
)
watch([by, () => workspace.state, () => workspace.scene], async ([told, state], [before]) => {
  if (told !== before) workspace.diagram = null
  if (!told) return
  try {
    const diagram = await api.diagram(id, workspace.schemeInView, told)
    if (by.value !== told || workspace.state !== state) return
    workspace.diagram = diagram
    stageHandle.value?.showColours(
      diagram.spans.map((spans) => spans.map((of) => diagram.things[of] ?? WHITE)),
    )
  } catch (e) {
    workspace.report(e)
  }
})
watch(
  () => [workspace.shown, workspace.scene] as const,
  async ([shown]) => {
    if (workspace.preview) return
    stageHandle.value?.showSides(shown === 'sides')
    if (shown === 'plain' || isDiagram(shown)) return
    if (shown === 'white') {
      stageHandle.value?.showColours((workspace.scene?.parts ?? []).map(() => WHITE))
      return
    }
    if (shown !== 'set' && shown !== 'shape') {
      stageHandle.value?.showColours(null)
      return
    }
    try {
      const colours = await api.plainColours(id, shown)
      if (workspace.shown === shown) stageHandle.value?.showColours(colours)
    } catch (e) {
      workspace.report(e)
    }
  },
)
watch(
  () => workspace.preview,
  async (preview, before) => {
    const stage = stageHandle.value
    const scene = preview?.scene ?? workspace.scene
    if (!stage || !scene) return
    if (scene !== (before?.scene ?? workspace.scene)) {
      stage.setLooks([], [])
      stage.setSelection([])
      await show(scene)
      if (workspace.preview !== preview) return
      if (!preview && workspace.state) stage.setLooks(workspace.state.looks, workspace.state.regions)
    }
    stage.showColours(preview?.colours ?? null)
  },
)
watch(
  () => [workspace.facesOf, workspace.faces] as const,
  ([part, faces]) => stageHandle.value?.markFaces(part ?? -1, part === null ? new Set() : faces),
)
watch(
  () => workspace.state,
  (state) => {
    if (state && !workspace.preview) stageHandle.value?.setLooks(state.looks, state.regions)
  },
)
watch(
  () => [workspace.selection, workspace.scene] as const,
  ([selection]) =>
    stageHandle.value?.setSelection([...new Set(selection.map((r) => r.part))], facesOf(selection)),
)
/** The spans of faces that are selected; a part that is selected elsewhere is meant as a whole. */
function facesOf(selection: Region[]): Map<number, Set<number>> {
  const out = new Map<number, Set<number>>()
  for (const { part, span } of selection) {
    const own = workspace.scene?.parts[part]?.ownFaces ?? []
    const face = own[span] ?? -1
    const whole = own.every((_, s) => selection.some((r) => r.part === part && r.span === s))
    if (face < 0 || (whole && own.some((f) => f !== face))) continue
    out.set(part, new Set(own.flatMap((f, s) => (f === face ? [s] : []))))
  }
  return out
}
watch(
  () => colleagues.selections,
  (selections) => stageHandle.value?.setOthers(selections),
)
watch(
  () => workspace.adjusting || cutting.part !== null,
  (isInTheWay) => stageHandle.value?.setSelectionVisible(!isInTheWay),
)
watch(
  () => workspace.bare,
  (bare) => stageHandle.value?.setBare(bare),
)
watch(
  () => workspace.isolated,
  (parts) => stageHandle.value?.isolate(parts),
)
watch(
  () => light.shown,
  (to) => void stageHandle.value?.setLight(to),
)

/** The model that is placed now, while the model is prepared. */
const placed = computed(() =>
  workspace.step === 'prepare' && !workspace.preview
    ? (workspace.scene?.models.find((m) => m.index === workspace.placing && m.group >= 0 && !m.locked) ??
      null)
    : null,
)
/** Whether what is placed next has yet to be brought into view: its shapes may come after it is known. */
let unseen = false
function showHandles(inView: boolean) {
  unseen ||= inView
  const model = placed.value
  const parts = (workspace.scene?.parts ?? []).filter((p) => p.model === model?.index)
  const moved = model && !model.hidden ? parts.map((p) => p.index) : []
  if (stageHandle.value?.showHandles(moved, model?.at ?? [], unseen)) unseen = false
}
watch(placed, (model, before) => {
  if (model?.index !== before?.index || model?.hidden !== before?.hidden) showHandles(true)
})

/** Takes in where a model is pulled to; sends it once it is let go. */
function pull(by: Pulled | null, ended: boolean) {
  const model = placed.value
  if (!by) workspace.pulled = null
  if (!model || !by) return
  const [x = 0, y = 0, z = 0] = model.degrees
  const to = {
    at: by.at.toArray(),
    degrees: [x, ((((y + by.degrees) % 360) + 540) % 360) - 180, z],
    scale: model.scale * by.times,
  }
  if (ended) void workspace.place(model.index, to)
  else workspace.pulled = to
}

function pick(region: Place | null, event: PointerEvent) {
  if (workspace.preview) return
  if (views.choosing) {
    const place = stageHandle.value?.at(event.clientX, event.clientY, true)
    if (place) void views.stand(place)
    return
  }
  if (region && region.part === workspace.facesOf) {
    const next = new Set(workspace.faces)
    if (!next.delete(region.face)) next.add(region.face)
    workspace.faces = next
    return
  }
  if (workspace.applying && region && workspace.chosen) {
    const mapping = event.altKey ? null : workspace.pickedMapping
    void putOn(region, workspace.chosen, mapping, event.shiftKey)
    return
  }
  if (region) workspace.aside = null
  if (!region) workspace.select([])
  else if (event.shiftKey || event.ctrlKey || event.metaKey) {
    const without = workspace.selection.filter((r) => r.part !== region.part)
    workspace.select(without.length < workspace.selection.length ? without : [...workspace.selection, region])
  } else workspace.select([region], region.behind)
}

/** Where a region shows what it is given, or on the narrowest thing that holds it. */
async function putOn(region: Place, material: string, mapping: 'metric' | 'model' | null, narrow: boolean) {
  try {
    const at = narrow
      ? spotOf(await trialOf(region, material, NARROWEST))
      : { level: null, regions: [region] }
    await workspace.assign({ ...at, side: null, behind: region.behind }, material, mapping)
  } catch (e) {
    workspace.report(e)
  }
}

/** What was clicked twice is what one goes around from now on. */
function circle(place: Place) {
  if (views.choosing) return
  stageHandle.value?.circle(place.point)
  workspace.tell(`Going around this point of ${workspace.scene?.parts[place.part]?.name ?? 'the model'} now`)
}

/** Keeps the first picture once everything has come. */
function keepFirstThumbnail() {
  if (stageHandle.value?.isBusy) window.setTimeout(keepFirstThumbnail, 1000)
  else keepThumbnail()
}

/** Keeps a small picture of the stage for the list of projects. */
function keepThumbnail() {
  const stage = stageHandle.value
  if (!stage || !id || stage.isBusy || workspace.isolated || workspace.preview) return
  if (workspace.shown !== 'looks') return
  if (drag.carries || workspace.adjusting) return
  void stage
    .picture(592, 388, 'image/jpeg')
    .then((jpeg) => api.putThumbnail(id, jpeg))
    .catch(() => undefined) // the list shows the last one instead
}

/** More steps than there are levels: to the narrowest one. */
const NARROWEST = 99
/** Where letting go would put the chip that is carried, and what would come of it. */
const aim = shallowRef<{ region: Place; steps: number; side: Sides | null; trial: Trial } | null>(null)
const tag = computed(() => {
  const at = hovered.value
  if (!at) return ''
  const name = workspace.scene?.parts[at.part]?.name ?? ''
  if (drag.colour) {
    const sharing = new Set(workspace.sharing(at, at.behind).map((r) => r.part)).size
    return drag.narrow
      ? `part · ${name}`
      : `${workspace.materialOf(at, at.behind)?.name ?? name} · ${counted(sharing, 'part')}`
  }
  const trial = aim.value?.region === at ? aim.value.trial : null
  if (!trial) return ''
  const what =
    trial.level === 'part'
      ? `part · ${name}`
      : trial.level === 'face'
        ? `face ${trial.name} of ${name}`
        : `${trial.level}${trial.level === 'group' ? ` ${trial.name}` : ''} · ${counted(trial.parts, 'part')}`
  if (trial.locked && trial.level === 'part') return `${name} is locked`
  const locked = trial.locked ? ` · ${name} is locked` : ''
  const side = trial.side === 'BOTH' ? '' : trial.side === 'BACK' ? ' · back alone' : ' · front alone'
  const kept = trial.hidden > 0 ? ` · ${trial.hidden} keep their own` : ''
  const hidden = trial.hiddenBy
    ? ` · hidden here by the ${trial.hiddenBy}’s own: it would show on the ${trial.hiddenBy}`
    : ''
  const letters = workspace.schemes.filter((s) => workspace.goesTo.includes(s.id)).map((s) => s.letter)
  const goes = letters.length > 0 ? ` · into ${letters.join(', ')}` : ''
  const also = trial.alsoIn.length > 0 ? ` · also in ${trial.alsoIn.join(', ')}` : ''
  return what + side + locked + kept + hidden + goes + also
})
/** The colour of what lies under the cursor, changed to the one that is carried; all else stays. */
const recoloured = computed(() => {
  const at = hovered.value
  if (!at || !drag.colour) return null
  return { colour: drag.colour.linear }
})

watch(
  () => [drag.carries, drag.x, drag.y] as const,
  ([carries]) => {
    const under = carries ? (stageHandle.value?.at(drag.x, drag.y) ?? null) : null
    const was = hovered.value
    const same = under?.part === was?.part && under?.span === was?.span && under?.behind === was?.behind
    if (!same) hovered.value = under
  },
)
watch([hovered, () => drag.narrow, () => drag.steps, () => drag.oneSide, () => drag.carries], async () => {
  const mine = ++trial
  const region = hovered.value
  if (!region || !drag.carries) {
    if (!letGo) stageHandle.value?.endTrial()
    return
  }
  try {
    if (recoloured.value) {
      const { physical } = await api.preview(
        workspace.id,
        workspace.schemeInView,
        region.part,
        region.span,
        recoloured.value,
        region.behind,
      )
      const spans = workspace.scene?.parts[region.part]?.sets.map((_, span) => ({
        part: region.part,
        span,
        front: true,
        back: true,
      }))
      const reached = drag.narrow ? (spans ?? []) : workspace.sharing(region, region.behind)
      if (mine === trial)
        stageHandle.value?.tryOn(
          reached,
          physical,
          workspace.lookOf(region, region.behind)?.mapping ?? 'metric',
        )
    } else if (drag.material) {
      const wanted = { region, steps: steps(), side: sideAt(region) }
      const aimed = await trialOf(region, drag.material.id, wanted.steps)
      if (mine !== trial) return
      aim.value = { ...wanted, trial: aimed }
      stageHandle.value?.tryOn(aimed.reached, aimed.look.physical, aimed.look.mapping)
    }
  } catch (e) {
    workspace.report(e)
  }
})

/** What would come of putting a material on the level that shows at a place, or some steps from it. */
function trialOf(region: Place, material: string, steps: number): Promise<Trial> {
  return api.trial(workspace.id, workspace.schemeInView, null, region, material, {
    steps,
    side: sideAt(region),
    behind: region.behind,
  })
}

/** How many levels narrower than the one that shows. */
function steps(): number {
  return drag.narrow ? NARROWEST : drag.steps
}

/** The side alone that is under the cursor, where that is asked for. */
function sideAt(region: Place): 'FRONT' | 'BACK' | null {
  return drag.oneSide ? (region.behind ? 'BACK' : 'FRONT') : null
}

/** While what was let go is on its way, the stage goes on showing it. */
let letGo = false

async function drop() {
  const region = hovered.value
  const material = drag.material
  const values = recoloured.value
  hovered.value = null
  if (!region) return
  const only = drag.narrow ? [region.part] : null
  const wanted = steps()
  const side = sideAt(region)
  const last = aim.value
  const isAimed = last?.region === region && last.steps === wanted && last.side === side
  trial++
  letGo = true
  workspace.aside = null
  workspace.select([region], region.behind)
  if (values) await workspace.adjust(region, only, values)
  if (material) {
    workspace.chosen = material.id
    workspace.picked = null
    try {
      const aimed = isAimed ? last.trial : await trialOf(region, material.id, wanted)
      await workspace.assign({ ...spotOf(aimed), side }, material.id)
    } catch (e) {
      workspace.report(e)
    }
  }
  letGo = false
  if (!drag.carries) stageHandle.value?.endTrial()
}

function spotOf({ level, target }: Trial): Spot {
  return { level: level as Spot['level'], target }
}

/** Where the cursor is over the stage, for what is asked about the part under it. */
const cursor = shallowRef<{ x: number; y: number } | null>(null)
/** Why the part under the cursor looks as it does, at the cursor. */
const explained = shallowRef<{ x: number; y: number; region: Region; why: Why } | null>(null)
async function explain() {
  const at = cursor.value
  if (explained.value) {
    explained.value = null
    return
  }
  const region = at ? (stageHandle.value?.at(at.x, at.y) ?? null) : null
  if (!at || !region) {
    workspace.tell('Hold the cursor over a part, then press W.')
    return
  }
  try {
    explained.value = {
      ...at,
      region,
      why: await api.why(workspace.id, workspace.schemeInView, region.part, region.span, region.behind),
    }
  } catch (e) {
    workspace.report(e)
  }
}
watch(
  () => workspace.state,
  () => (explained.value = null),
)

/** Takes the look under the cursor up, or that of the selection. */
function pickUp() {
  const at = cursor.value
  const under = at ? (stageHandle.value?.at(at.x, at.y) ?? null) : null
  const region = under ?? workspace.current
  if (region) workspace.pickUp(region, true, under ? under.behind : workspace.behind)
  else workspace.tell('Hold the cursor over a part, then press Q.')
}

function frame() {
  const parts = [...new Set(workspace.selection.map((r) => r.part))]
  stageHandle.value?.frame(parts.length > 0 ? parts : undefined)
}
function isolate() {
  const parts = [...new Set(workspace.selection.map((r) => r.part))]
  workspace.isolated = workspace.isolated || parts.length === 0 ? null : parts
}
/** Whether there was an explanation to close. */
function endExplaining(): boolean {
  const open = explained.value !== null
  explained.value = null
  return open
}
/** The selection is hidden; what is hidden already stays so. */
function hide() {
  const gone = new Set(workspace.selection.map((r) => r.part))
  const shown = workspace.isolated ?? (workspace.scene?.parts ?? []).map((p) => p.index)
  workspace.isolated = shown.filter((p) => !gone.has(p))
  workspace.select([])
}
/** Shows only what nobody has given a look and what is plain grey or white. */
function onlyUndressed() {
  const parts = workspace.design
    .filter((p) => p.sets.some((_, span) => workspace.lookOf({ part: p.index, span })?.undressed))
    .map((p) => p.index)
  if (parts.length === 0) workspace.tell('Nothing is left grey or white.')
  else workspace.isolated = parts
}
/** Whether all but the selection is faded. */
const fades = ref(false)
/** What stands out from the rest: what is pointed at, else what is selected while the rest is to fade. */
const outstanding = computed(() => {
  if (workspace.lit.length > 0 || !fades.value) return workspace.lit
  const parts = new Set(workspace.selection.map((r) => r.part))
  return (workspace.state?.regions ?? []).filter((r) => parts.has(r.part))
})
watch(outstanding, (regions) => stageHandle.value?.lightUp(regions))

defineExpose({ frame, isolate, explain, endExplaining, pickUp })
</script>

<template>
  <div
    class="frame"
    :class="{ applying: workspace.applying, choosing: views.choosing, bare: workspace.bare }"
    @pointermove="cursor = { x: $event.clientX, y: $event.clientY }"
    @pointerleave="cursor = null"
  >
    <div ref="element" class="stage" data-testid="stage" />
    <img v-if="proof.isShown" class="proof" :src="proof.picture" alt="The model with its light traced" />
    <p v-if="failed" class="failed">{{ failed }}</p>
    <div v-if="views.choosing" class="note">
      Click where you stand, on a floor or before a wall <span class="soft small">Esc: stay here</span>
    </div>
    <div v-else-if="workspace.applying && workspace.chosen" class="note">
      Click parts to put <b>{{ workspace.materials.get(workspace.chosen)?.name }}</b> on them
      <span class="soft small">
        where it shows · Shift: only the part
        <template v-if="workspace.pickedMapping"> · Alt: the material alone</template> · Esc ends
      </span>
    </div>
    <div v-else-if="ageing.left > 0 && !drag.carries" class="note" role="status">
      <template v-if="ageing.stopped">{{ counted(ageing.left, 'part') }} still to age</template>
      <template v-else>
        Working out how {{ counted(ageing.left, 'part') }} {{ ageing.left === 1 ? 'ages' : 'age' }}
        <span class="soft small">{{ ageing.seconds === null ? '…' : timeLeft(ageing.seconds) }}</span>
      </template>
      <button class="plain link" @click="stageHandle?.putOffAges(!ageing.stopped)">
        {{ ageing.stopped ? 'Go on' : 'Not now' }}
      </button>
    </div>
    <div v-else-if="drag.carries" class="note">
      <b>{{ drag.material?.name ?? drag.colour?.hex }}</b>
      <template v-if="hovered">
        over <b>{{ workspace.scene?.parts[hovered.part]?.name }}</b>
        <span class="soft small">
          let go to {{ drag.colour ? 'give it this colour alone' : 'apply' }} · Shift: only the part
          <template v-if="!drag.colour"> · wheel or ↑ ↓: broader, narrower · S: one side</template> · Esc:
          leave it
        </span>
      </template>
      <span v-else class="soft small">carry it onto the model</span>
    </div>
    <div v-else-if="workspace.notice" class="note" role="status">{{ workspace.notice }}</div>
    <div class="bar">
      <v-btn size="small" :prepend-icon="mdiFitToScreenOutline" @click="frame">
        {{ workspace.selection.length > 0 ? 'Frame selection' : 'Frame all' }}
        <v-tooltip activator="parent" location="top">F</v-tooltip>
      </v-btn>
      <v-btn
        size="small"
        :prepend-icon="mdiEyeOutline"
        :disabled="!workspace.isolated && workspace.selection.length === 0"
        @click="isolate"
      >
        {{ workspace.isolated ? 'Show everything' : 'Show only this' }}
        <v-tooltip activator="parent" location="top">X</v-tooltip>
      </v-btn>
      <ViewsMenu />
      <v-btn
        size="small"
        :prepend-icon="mdiCameraIris"
        :color="proof.on ? 'primary' : undefined"
        :aria-pressed="proof.on"
        :disabled="!proof.isPossible"
        @click="proof.toggle"
      >
        Proof
        <v-tooltip activator="parent" location="top">P: this view with its light traced</v-tooltip>
      </v-btn>
      <v-menu v-if="workspace.step === 'assign'" location="top">
        <template #activator="{ props: menu }">
          <v-btn size="small" v-bind="menu" :prepend-icon="mdiLayersOutline">
            {{ AIDS.find((a) => a.value === workspace.aid)?.title }}
          </v-btn>
        </template>
        <v-list density="compact" aria-label="What the stage shows">
          <v-list-item
            v-for="a in AIDS"
            :key="a.value"
            :title="a.title"
            :subtitle="a.says"
            :active="a.value === workspace.aid"
            @click="workspace.aid = a.value"
          />
          <v-divider />
          <v-list-item
            title="Hide the selection"
            :disabled="workspace.selection.length === 0"
            @click="hide"
          />
          <v-list-item
            :title="fades ? 'Fade nothing' : 'Fade all but the selection'"
            :active="fades"
            @click="fades = !fades"
          />
          <v-list-item title="Only what is still grey or white" @click="onlyUndressed" />
        </v-list>
      </v-menu>
    </div>
    <ProofNote v-if="proof.on && proof.isPossible" />
    <DiagramLegend v-if="workspace.diagram" :diagram="workspace.diagram" />
    <WhyPanel
      v-if="explained"
      :why="explained.why"
      :x="explained.x"
      :y="explained.y"
      @close="explained = null"
    />
    <Teleport to="body">
      <div v-if="drag.carries" class="carried" :style="{ left: `${drag.x}px`, top: `${drag.y}px` }">
        <i
          :style="{
            backgroundColor: (drag.material?.colour ?? drag.colour)?.hex,
            backgroundImage: drag.picture ? `url(${drag.picture})` : undefined,
          }"
        />
        <span v-if="tag" class="tag">{{ tag }}</span>
      </div>
    </Teleport>
  </div>
</template>

<style scoped>
.frame {
  position: relative;
  min-width: 0;
  min-height: 0;
  background: #c6c5c1;
}
.stage {
  position: absolute;
  inset: 0;
}
.proof {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
.stage :deep(canvas) {
  display: block;
}
.applying .stage {
  cursor: copy;
}
.choosing .stage {
  cursor: crosshair;
}
.bare .note,
.bare .diagram,
.bare .proof-note,
.bare .bar {
  visibility: hidden;
}
.note .small {
  margin-left: 8px;
}
.note .link {
  margin-left: 12px;
  color: var(--accent);
  pointer-events: auto;
}
.note {
  position: absolute;
  left: 14px;
  top: 12px;
  background: #faf9f7eb;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  padding: 6px 10px;
  pointer-events: none;
}
.failed {
  position: absolute;
  inset: 0;
  display: grid;
  place-items: center;
  padding: 40px;
  text-align: center;
}
.bar {
  position: absolute;
  left: 14px;
  right: 14px;
  bottom: 12px;
  display: flex;
  flex-wrap: wrap-reverse;
  gap: 6px;
  pointer-events: none;
}
.bar :deep(.v-btn) {
  pointer-events: auto;
}
.carried {
  position: fixed;
  z-index: 3000;
  pointer-events: none;
}
.carried i {
  display: block;
  width: 56px;
  height: 48px;
  margin: 12px 0 0 14px;
  border: 1px solid #fdfcfa;
  border-radius: var(--radius);
  background-size: cover;
  box-shadow: 0 3px 10px #0005;
}
.tag {
  position: absolute;
  left: 76px;
  top: 14px;
  white-space: nowrap;
  background: var(--ink);
  color: var(--white);
  font-size: 11px;
  padding: 3px 8px;
  border-radius: var(--radius);
}
</style>
