<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { Refusal } from '../api/client'
import ArrivalCard from '../panels/arrival/ArrivalCard.vue'
import HistoryCard from '../panels/card/HistoryCard.vue'
import LookCard from '../panels/card/LookCard.vue'
import SchemeCard from '../panels/card/SchemeCard.vue'
import WorkspaceHeader from '../panels/header/WorkspaceHeader.vue'
import PartsLedger from '../panels/ledger/PartsLedger.vue'
import LightCard from '../panels/light/LightCard.vue'
import LightTray from '../panels/light/LightTray.vue'
import PictureCard from '../panels/picture/PictureCard.vue'
import CloserLook from '../panels/stage/CloserLook.vue'
import StageView from '../panels/stage/StageView.vue'
import SampleTray from '../panels/tray/SampleTray.vue'
import SourceTray from '../panels/tray/SourceTray.vue'
import { useCandidates } from '../stores/candidates'
import { useColleagues } from '../stores/colleagues'
import { useChips } from '../stores/chips'
import { useCloser } from '../stores/closer'
import { useConnection } from '../stores/connection'
import { listen } from '../stores/events'
import { useFinding } from '../stores/finding'
import { useImports } from '../stores/imports'
import { useJobs } from '../stores/jobs'
import { useLibraries } from '../stores/libraries'
import { useDrag } from '../stores/drag'
import { useOwnFace } from '../stores/ownFace'
import { useProof } from '../stores/proof'
import { useSchemes } from '../stores/schemes'
import { useSession } from '../stores/session'
import { stageHandle } from '../stores/stageHandle'
import { useViews } from '../stores/views'
import { useWorkspace } from '../stores/workspace'

const props = defineProps<{ id: string }>()
const workspace = useWorkspace()
const imports = useImports()
const finding = useFinding()
const closer = useCloser()
const schemes = useSchemes()
const candidates = useCandidates()
const proof = useProof()
const router = useRouter()
const colleagues = useColleagues()
const views = useViews()
const face = useOwnFace()
const drag = useDrag()
const connection = useConnection()
const session = useSession()
const missing = ref('')
const help = ref(false)
const stage = ref<InstanceType<typeof StageView> | null>(null)
let stop = () => {}

onMounted(async () => {
  window.addEventListener('keydown', key)
  window.addEventListener('keyup', released)
  window.addEventListener('blur', endHolding)
  window.addEventListener('pagehide', proof.close)
  window.addEventListener('beforeunload', keepUnsent)
  try {
    await workspace.open(props.id)
  } catch (e) {
    missing.value = e instanceof Refusal ? e.message : 'The project could not be opened.'
    return
  }
  stop = listen({
    job: (news) => {
      imports.hear(news)
      useJobs().hear(news)
      if (news.kind === 'import' && news.state === 'DONE' && news.result === props.id) void workspace.reread()
    },
    project: (news) => {
      if (news.id === props.id && workspace.pending === 0 && news.version > (workspace.state?.version ?? 0))
        void workspace.catchUp()
    },
    chip: (news) => {
      useChips().hear(news.key)
      useCloser().hear(news.key)
    },
    proof: proof.hear,
    library: () => void useLibraries().hear(),
    presence: colleagues.hear,
    open: () => {
      void workspace.catchUp()
      proof.catchUp()
    },
  })
  colleagues.begin()
})
onBeforeUnmount(() => {
  window.removeEventListener('keydown', key)
  window.removeEventListener('keyup', released)
  window.removeEventListener('blur', endHolding)
  window.removeEventListener('pagehide', proof.close)
  window.removeEventListener('beforeunload', keepUnsent)
  stop()
  colleagues.end()
  proof.close()
  workspace.close()
  closer.close()
})

/** Asks before a page is left that holds changes which nobody has taken yet. */
function keepUnsent(e: BeforeUnloadEvent) {
  if (workspace.pending > 0 && (connection.away || session.ended)) e.preventDefault()
}

const SHORTCUTS: [string, string][] = [
  ['1 2 4 5', 'Prepare, Assign, Light, Picture'],
  ['Drag a chip', 'Show it on the part under the cursor; let go to apply'],
  ['Shift while dragging', 'Only the part instead of its matching set'],
  ['Wheel or ↑ ↓ while dragging', 'A broader or a narrower level'],
  ['A', 'Put the chosen chip on whatever you click, until Esc'],
  ['Q', 'Pick up the look under the cursor and put it on what you click; Alt: the material alone'],
  ['Ctrl C, Ctrl V', 'Copy a look, give it to the selection; Shift: as a material of its own'],
  ['[ and ]', 'Show the next candidate kept on the selection, or the one before; Enter puts it on'],
  ['W', 'Why does what is under the cursor look as it does?'],
  ['hold C', 'See the scheme that this one is compared with'],
  ['P', 'The proof: this view with its light traced; or the quick view again'],
  ['hold J', 'Judge the looks: nothing on the stage but them'],
  ['H', 'History'],
  ['G, Shift G', 'Select the whole group, and the one around it; back down'],
  ['F', 'Frame the selection'],
  ['Double-click', 'Go around the point that was clicked'],
  ['Arrows, + and −', 'Move a little, closer and farther; arrows with Shift: more'],
  ['V', 'Stand where you click next, at eye height'],
  ['X', 'Show only the selection, or everything again'],
  ['/', 'Find a material'],
  ['L', 'Look closely at the chosen chip, or at what is selected; or no more'],
  ['T', 'Open the tray to half the window, or close it'],
  ['Ctrl-click a chip', 'Lay it side by side with others, up to six'],
  ['Ctrl Z, Ctrl Shift Z', 'Undo, redo'],
  ['Esc', 'End what is going on; then clear the selection'],
  ['?', 'This list'],
]

/** To the right and up, in small steps. */
const MOVES: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}
/** With Shift. */
const FAR = 5

function key(e: KeyboardEvent) {
  const target = e.target as HTMLElement
  const typing = target.matches('input, select, textarea')
  if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'z' && !typing) {
    e.preventDefault()
    void (e.shiftKey ? workspace.redo() : workspace.undo())
    return
  }
  if ((e.ctrlKey || e.metaKey) && !typing && !window.getSelection()?.toString()) {
    const letter = e.key.toLowerCase()
    if (letter === 'c' && workspace.current) workspace.copyLook()
    else if (letter === 'v') void workspace.pasteLook(!e.shiftKey)
    else return
    e.preventDefault()
    return
  }
  if (typing || e.ctrlKey || e.metaKey || e.altKey) return
  if (e.key.toLowerCase() === 'c') {
    if (!e.repeat) schemes.showOther(true)
    return
  }
  if (e.key.toLowerCase() === 'j') {
    workspace.bare = true
    return
  }
  if (e.key === 'Escape' && document.querySelector('.v-menu.v-overlay--active')) return // it closes
  const actions: Record<string, () => void> = {
    '1': () => workspace.go('prepare'),
    '2': () => workspace.go('assign'),
    '4': () => workspace.go('light'),
    '5': () => workspace.go('picture'),
    f: () => stage.value?.frame(),
    x: () => stage.value?.isolate(),
    l: () => closer.toggle(),
    g: () => (e.shiftKey ? workspace.descend() : workspace.climb()),
    a: toggleApplying,
    q: () => stage.value?.pickUp(),
    w: () => void stage.value?.explain(),
    '[': () => candidates.step(-1),
    ']': () => candidates.step(1),
    h: () => (workspace.aside = workspace.aside === 'history' ? null : 'history'),
    t: () => (finding.open = !finding.open),
    '/': () => document.getElementById('tray-search')?.focus(),
    '?': () => (help.value = true),
    p: () => proof.toggle(),
    v: () => (views.choosing = !views.choosing),
    '+': () => stageHandle.value?.shift(0, 0, 1),
    '-': () => stageHandle.value?.shift(0, 0, -1),
    Escape: () => {
      if (stage.value?.endExplaining()) return
      if (views.choosing || face.part !== null) {
        views.choosing = false
        face.end()
        return
      }
      if (candidates.current) {
        candidates.leave()
        return
      }
      if (workspace.applying) workspace.applying = false
      else if (workspace.placing !== null) workspace.placing = null
      else if (closer.material) closer.close()
      else workspace.select([])
    },
  }
  if (e.key === 'Enter' && candidates.current && target.matches('body, [data-testid=stage] *')) {
    void candidates.putOn()
    return
  }
  const move = MOVES[e.key]
  if (move && !drag.carries && target.matches('body, [data-testid=stage] *')) {
    e.preventDefault()
    const far = e.shiftKey ? FAR : 1
    stageHandle.value?.shift(move[0] * far, move[1] * far, 0)
    return
  }
  const action = actions[e.key.length === 1 ? e.key.toLowerCase() : e.key]
  if (action) {
    e.preventDefault()
    action()
  }
}

function released(e: KeyboardEvent) {
  if ('cj'.includes(e.key.toLowerCase())) endHolding()
}
/** A key that is let go while another window has the keyboard is not heard. */
function endHolding() {
  schemes.showOther(false)
  workspace.bare = false
}

function toggleApplying() {
  workspace.picked = null
  if (!workspace.chosen) workspace.tell('Choose a chip in the tray first.')
  else workspace.applying = !workspace.applying
}

function answer(yes: boolean) {
  const question = workspace.question
  workspace.question = null
  if (yes) question?.yes()
}
</script>

<template>
  <div v-if="missing" class="missing">
    <p class="title">{{ missing }}</p>
    <v-btn @click="router.push('/projects')">All projects</v-btn>
  </div>
  <div
    v-else-if="workspace.scene && workspace.state"
    class="table"
    :class="{ tall: finding.open && ['assign', 'picture'].includes(workspace.step) }"
  >
    <WorkspaceHeader />
    <PartsLedger />
    <StageView ref="stage" />
    <CloserLook v-if="closer.material && workspace.step !== 'prepare'" />
    <SchemeCard v-if="workspace.aside === 'scheme'" />
    <HistoryCard v-else-if="workspace.aside === 'history'" />
    <ArrivalCard v-else-if="workspace.step === 'prepare'" />
    <LookCard v-else-if="workspace.step === 'assign'" />
    <LightCard v-else-if="workspace.step === 'light'" />
    <PictureCard v-else />
    <LightTray v-if="workspace.step === 'light'" class="wide" />
    <SourceTray v-else-if="workspace.step === 'prepare'" class="wide" />
    <SampleTray v-else class="wide" />
    <p v-if="workspace.problem" class="trouble" role="alert">
      {{ workspace.problem }} <button class="plain" @click="workspace.problem = ''">Understood</button>
    </p>
    <v-dialog :model-value="workspace.question !== null" @update:model-value="answer(false)">
      <v-card>
        <v-card-text>{{ workspace.question?.text }}</v-card-text>
        <v-card-actions>
          <v-btn @click="answer(false)">Leave it</v-btn>
          <v-btn color="primary" variant="flat" @click="answer(true)">Do it anyway</v-btn>
        </v-card-actions>
      </v-card>
    </v-dialog>
    <v-dialog v-model="help" max-width="520">
      <v-card title="Keys">
        <v-card-text>
          <dl class="keys">
            <template v-for="[keys, what] in SHORTCUTS" :key="keys">
              <dt>{{ keys }}</dt>
              <dd>{{ what }}</dd>
            </template>
          </dl>
        </v-card-text>
      </v-card>
    </v-dialog>
  </div>
  <p v-else class="missing soft">Opening the project …</p>
</template>

<style scoped>
.table {
  height: 100vh;
  display: grid;
  grid-template: 48px minmax(0, 1fr) 148px / 252px minmax(0, 1fr) 332px;
  position: relative;
}
.table.tall {
  grid-template-rows: 48px minmax(0, 1fr) 48vh;
}
.wide {
  grid-column: 1 / -1;
}
.missing {
  height: 100vh;
  display: flex;
  flex-direction: column;
  gap: 14px;
  align-items: center;
  justify-content: center;
}
.trouble {
  position: absolute;
  left: 266px;
  right: 346px;
  top: 60px;
  background: var(--paper);
  border: 1px solid var(--brick);
  color: var(--brick);
  border-radius: var(--radius);
  padding: 8px 12px;
  z-index: 5;
}
.trouble button {
  text-decoration: underline;
  margin-left: 8px;
}
.keys {
  display: grid;
  grid-template-columns: 160px 1fr;
  gap: 6px 14px;
}
.keys dt {
  font-weight: 600;
}
</style>
