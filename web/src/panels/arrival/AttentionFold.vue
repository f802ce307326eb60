<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type Finding, type Findings, type Job, type Remedy } from '../../api/client'
import { stageHandle } from '../../stores/stageHandle'
import { counted, useWorkspace } from '../../stores/workspace'

/** How many of a kind are listed before the rest is asked for. */
const LISTED = 5

const TITLES: Record<Finding['kind'], string> = {
  OPEN: 'Not quite closed',
  NON_MANIFOLD: 'Too many faces at an edge',
  FLIPPED: 'Facing the wrong way',
  DUPLICATE: 'In the file twice',
  DEGENERATE: 'Without an area',
  COINCIDENT: 'Two faces in one place',
  POKING: 'Poking through',
  GAP: 'Gaps',
  NOT_COMPARED: 'Not looked into',
  STRAY: 'Far from the rest',
  FAR_FROM_ORIGIN: 'Far from the origin',
  NO_COORDINATES: 'Without texture coordinates',
  EVEN_COORDINATES: 'Texture coordinates in order',
  OVERSIZE_IMAGE: 'Images larger than needed',
  EMPTY_GROUP: 'Groups that hold nothing',
  NAMELESS: 'Names that say nothing',
}

/** Told, but nothing is to be done about it. */
const CALM = new Set<Finding['kind']>(['NO_COORDINATES', 'EVEN_COORDINATES'])

const workspace = useWorkspace()
const findings = ref<Findings | null>(null)
const failed = ref(false)
const unfolded = ref(new Set<Finding['kind']>())
const looking = ref<Finding | null>(null)
const again = ref<Job | null>(null)

watch(() => [workspace.scene, workspace.state?.unit], read, { immediate: true })

const REMEDIES: Record<Remedy, string> = {
  TURN_OUTWARD: 'Turn outward',
  DROP: 'Drop them',
  REMOVE_GROUPS: 'Remove them',
}

async function mend(remedy: Remedy, parts: number[]) {
  const done = await workspace.run((v) => {
    if (remedy === 'TURN_OUTWARD') return api.turnParts(workspace.id, v, parts, 'outward')
    if (remedy === 'DROP') return api.repair(workspace.id, v, { parts, repair: 'DROP', amount: 0 })
    return api.cleanUp(workspace.id, v, { materials: false, images: false, groups: true, palette: false })
  })
  if (!done) return
  workspace.tell(`${workspace.state?.undo ?? ''} · undo takes it back`)
  await lookAgain()
}

async function read() {
  failed.value = false
  try {
    findings.value = await api.findings(workspace.id)
    looking.value = null
  } catch {
    failed.value = true
  }
}

/** Has the model looked through once more, and waits for it. */
async function lookAgain() {
  try {
    again.value = await api.inspect(workspace.id)
    while (again.value && /QUEUED|RUNNING/.test(again.value.state)) {
      await new Promise((done) => window.setTimeout(done, 300))
      const id: string = again.value.id
      again.value = (await api.jobs()).find((j) => j.id === id) ?? null
    }
    if (again.value?.problem) workspace.problem = again.value.problem
  } catch (e) {
    workspace.report(e)
  }
  again.value = null
  await read()
}

const kinds = computed(() => {
  const all = new Map<Finding['kind'], Finding[]>()
  for (const f of findings.value?.entries ?? []) {
    const known = all.get(f.kind)
    if (known) known.push(f)
    else all.set(f.kind, [f])
  }
  return [...all].map(([kind, list]) => {
    const open = unfolded.value.has(kind)
    return { kind, list, open, shown: open ? list : list.slice(0, LISTED) }
  })
})

function look(finding: Finding) {
  looking.value = finding
  if (finding.parts.length > 0) workspace.selectParts(finding.parts)
  if (finding.place) stageHandle.value?.lookAt(finding.place)
}

function unfold(kind: Finding['kind']) {
  const next = new Set(unfolded.value)
  next.add(kind)
  unfolded.value = next
}
</script>

<template>
  <section class="fold" aria-label="What needs attention">
    <h2>
      What needs attention
      <small v-if="findings?.looked">{{ counted(findings.entries.length, 'finding') }}</small>
    </h2>
    <p v-if="again" class="soft small pair" role="status">
      Looking the model through · {{ Math.round(100 * again.share) }} %
      <v-btn size="small" @click="api.cancelJob(again.id).catch(workspace.report)">Call off</v-btn>
    </p>
    <p v-else-if="findings?.looked && !findings.current" class="soft small pair">
      Shapes have changed since.
      <v-btn size="small" @click="lookAgain">Look again</v-btn>
    </p>
    <p v-if="failed" class="soft small" role="alert">
      What was found can’t be fetched. Open the project again.
    </p>
    <p v-else-if="findings && !findings.looked" class="soft small">
      This model came before Zolvan looked models through.
      <v-btn size="small" :disabled="again !== null" @click="lookAgain">Look it through</v-btn>
    </p>
    <p v-else-if="findings && findings.entries.length === 0" class="soft small">
      Nothing: bodies are closed, faces look outward, and nothing pokes through or lies in one place.
    </p>
    <template v-for="k in kinds" :key="k.kind">
      <h3>
        {{ TITLES[k.kind] }} <small>{{ k.list.length }}</small>
      </h3>
      <ul>
        <li v-for="(f, i) in k.shown" :key="i">
          <button
            class="plain entry"
            :class="{ on: looking === f, calm: CALM.has(f.kind) }"
            :aria-pressed="looking === f"
            @click="look(f)"
          >
            {{ f.says }}
          </button>
          <div v-if="looking === f" class="advice">
            <p class="soft small">{{ f.advice }}{{ f.certainty === 'PERHAPS' ? ' It may be meant.' : '' }}</p>
            <v-btn
              v-if="f.remedy"
              size="small"
              :disabled="workspace.pending > 0 || again !== null"
              @click="mend(f.remedy, f.parts)"
            >
              {{ REMEDIES[f.remedy] }}
            </v-btn>
          </div>
        </li>
      </ul>
      <button v-if="k.shown.length < k.list.length" class="plain more" @click="unfold(k.kind)">
        {{ k.list.length - k.shown.length }} more
      </button>
    </template>
  </section>
</template>

<style scoped>
h3 {
  font-size: 11px;
  font-weight: 600;
  margin: 8px 0 2px;
}
h3 small {
  color: var(--soft);
  font-weight: 400;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
.entry {
  display: block;
  width: 100%;
  padding: 3px 6px;
  border-left: 2px solid var(--amber);
  text-align: left;
  overflow-wrap: anywhere;
}
.entry.calm {
  border-left-color: var(--line-strong);
}
.entry:hover {
  background: var(--well);
}
.entry.on {
  border-left-color: var(--accent);
}
.advice {
  margin: 0 0 4px;
  padding-left: 8px;
}
.more {
  color: var(--accent);
  padding: 2px 8px;
}
</style>
