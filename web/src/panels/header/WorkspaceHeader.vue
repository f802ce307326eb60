<script setup lang="ts">
import { mdiArrowLeft, mdiHistory, mdiRedo, mdiUndo } from '@mdi/js'
import { computed, reactive, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api } from '../../api/client'
import { useColleagues } from '../../stores/colleagues'
import { useConnection } from '../../stores/connection'
import { useSession } from '../../stores/session'
import { counted, useWorkspace, type Step } from '../../stores/workspace'
import JobsMenu from '../shared/JobsMenu.vue'
import AccountsDialog from './AccountsDialog.vue'
import OwnAccountDialog from './OwnAccountDialog.vue'
import SchemeDividers from './SchemeDividers.vue'
import TeamDialog from './TeamDialog.vue'

const workspace = useWorkspace()
const session = useSession()
const router = useRouter()
const editing = ref(false)
const people = ref(false)
const own = ref(false)
const team = ref(false)
const colleagues = useColleagues()
function initials(name: string): string {
  return name
    .split(/\s+/)
    .map((w) => w[0] ?? '')
    .slice(0, 2)
    .join('')
    .toUpperCase()
}
const details = reactive({ name: '', client: '', unit: 'mm' })

const STEPS: { id: Step; name: string; key: string }[] = [
  { id: 'prepare', name: 'Prepare', key: '1' },
  { id: 'assign', name: 'Assign', key: '2' },
  { id: 'light', name: 'Light', key: '4' },
  { id: 'picture', name: 'Picture', key: '5' },
]

const connection = useConnection()
const saved = computed(() => {
  if (workspace.pending > 0) return connection.away || session.ended ? 'not saved yet' : 'saving …'
  return workspace.problem && workspace.failed ? 'not saved' : 'saved'
})

function edit() {
  const s = workspace.state
  if (s) Object.assign(details, { name: s.name, client: s.client, unit: s.unit })
  editing.value = true
}

async function keep() {
  editing.value = false
  await workspace.run((v) => api.changeDetails(workspace.id, v, { ...details }))
}

async function signOut() {
  await session.signOut()
  await router.push('/sign-in')
}
</script>

<template>
  <header class="header">
    <router-link to="/projects" class="back" aria-label="All projects">
      <v-icon :icon="mdiArrowLeft" size="18" />
      <v-tooltip activator="parent" location="bottom">All projects</v-tooltip>
    </router-link>
    <button class="plain name" title="Change name, client or unit" @click="edit">
      <b>{{ workspace.state?.name }}</b>
      <span class="soft small told">
        <span class="client">{{ workspace.state?.client || 'No client yet' }}</span>
        <span class="saved"
          >· <span data-testid="saved">{{ saved }}</span></span
        >
      </span>
    </button>
    <SchemeDividers />
    <nav class="steps" aria-label="Steps">
      <button
        v-for="s in STEPS"
        :key="s.id"
        class="plain"
        :class="{ on: s.id === workspace.step }"
        :aria-current="s.id === workspace.step ? 'step' : undefined"
        :title="`${s.name} (${s.key})`"
        @click="workspace.go(s.id)"
      >
        {{ s.name }}
      </button>
    </nav>
    <div class="right">
      <span v-if="colleagues.all.length > 0" class="others" aria-label="Others on this project">
        <i
          v-for="c in colleagues.all"
          :key="c.page"
          :style="{ background: c.colour }"
          :title="colleagues.says(c)"
          :aria-label="colleagues.says(c)"
          role="img"
          >{{ initials(c.name) }}</i
        >
      </span>
      <button
        class="plain turn"
        aria-label="Undo"
        :disabled="!workspace.state?.undo"
        @click="workspace.undo()"
      >
        <v-icon :icon="mdiUndo" size="18" />
        <v-tooltip activator="parent" location="bottom">{{
          workspace.state?.undo ? `Undo: ${workspace.state.undo}` : 'Nothing to undo'
        }}</v-tooltip>
      </button>
      <button
        class="plain turn"
        aria-label="Redo"
        :disabled="!workspace.state?.redo"
        @click="workspace.redo()"
      >
        <v-icon :icon="mdiRedo" size="18" />
        <v-tooltip activator="parent" location="bottom">{{
          workspace.state?.redo ? `Redo: ${workspace.state.redo}` : 'Nothing to redo'
        }}</v-tooltip>
      </button>
      <button
        class="plain turn"
        aria-label="History"
        :aria-pressed="workspace.aside === 'history'"
        @click="workspace.aside = workspace.aside === 'history' ? null : 'history'"
      >
        <v-icon :icon="mdiHistory" size="18" />
        <v-tooltip activator="parent" location="bottom">History (H)</v-tooltip>
      </button>
      <JobsMenu />
      <v-menu>
        <template #activator="{ props: menu }">
          <button class="plain account" v-bind="menu">{{ session.account?.displayName }}</button>
        </template>
        <v-list density="compact">
          <v-list-item title="All projects" to="/projects" />
          <v-list-item title="People on this project" @click="team = true" />
          <v-list-item title="Your account" @click="own = true" />
          <v-list-item title="People who may sign in" @click="people = true" />
          <v-list-item title="Licences, front end" href="/third-party-web.txt" target="_blank" />
          <v-list-item title="Licences, server" href="/third-party-java.txt" target="_blank" />
          <v-list-item title="Sign out" @click="signOut" />
        </v-list>
      </v-menu>
    </div>
    <AccountsDialog v-model="people" />
    <OwnAccountDialog v-model="own" />
    <TeamDialog v-model="team" />
    <v-dialog v-model="editing">
      <v-card title="Project">
        <v-card-text class="form">
          <label>Name <input v-model="details.name" class="field" maxlength="120" /></label>
          <label>Client <input v-model="details.client" class="field" maxlength="120" /></label>
          <label>
            Lengths are shown in
            <select v-model="details.unit" class="field">
              <option value="mm">millimetres</option>
              <option value="cm">centimetres</option>
              <option value="m">metres</option>
              <option value="in">inches</option>
              <option value="ft">feet</option>
            </select>
          </label>
          <section v-if="workspace.scene" class="file" aria-label="The imported file">
            <b>{{ workspace.scene.fileName }}</b>
            <span class="soft small">
              {{ workspace.scene.origin.format }} · in {{ workspace.scene.origin.unit }},
              {{ workspace.scene.origin.upAxis }} up · {{ counted(workspace.scene.triangles, 'triangle') }},
              {{ counted(workspace.scene.faces, 'face') }}
            </span>
            <span class="soft small">
              {{ workspace.scene.origin.unitReason }} {{ workspace.scene.origin.upReason }}
            </span>
            <template v-if="workspace.scene.notes.length > 0">
              <span class="small">Left out or not used:</span>
              <ul class="small">
                <li v-for="n in workspace.scene.notes" :key="n">{{ n }}</li>
              </ul>
            </template>
            <span v-else class="small">Everything the file held is used.</span>
            <span v-if="workspace.scene.lacking.length > 0" class="small">
              {{ counted(workspace.scene.lacking.length, 'file') }} it refers to did not come with it; find
              them under Prepare.
            </span>
          </section>
        </v-card-text>
        <v-card-actions>
          <v-btn @click="editing = false">Leave as it was</v-btn>
          <v-btn color="primary" variant="flat" @click="keep">Keep</v-btn>
        </v-card-actions>
      </v-card>
    </v-dialog>
  </header>
</template>

<style scoped>
.header {
  grid-column: 1 / -1;
  display: flex;
  align-items: center;
  background: var(--paper);
  border-bottom: 1px solid var(--line);
}
.back {
  color: var(--soft);
  padding: 0 4px 0 12px;
}
.name {
  padding: 0 10px;
  width: 178px;
  flex: none;
  line-height: 1.25;
}
.name b {
  display: block;
  font-weight: 650;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.told {
  display: flex;
  gap: 4px;
  white-space: nowrap;
}
.client {
  overflow: hidden;
  text-overflow: ellipsis;
}
.saved {
  flex: none;
}
.steps {
  flex: none;
  margin: 0 auto;
  padding: 0 14px;
  display: flex;
  gap: 20px;
}
.steps button {
  padding: 5px 2px 4px;
  color: var(--soft);
  border-bottom: 2px solid transparent;
}
.steps .on {
  color: var(--ink);
  font-weight: 640;
  border-bottom-color: var(--accent);
}
.right {
  display: flex;
  align-items: center;
  gap: 14px;
  padding-right: 16px;
}

.others {
  display: flex;
}
.others i {
  width: 24px;
  height: 24px;
  margin-left: -4px;
  border: 2px solid var(--paper);
  border-radius: 50%;
  color: #fff;
  font-style: normal;
  font-size: 10px;
  font-weight: 650;
  line-height: 20px;
  text-align: center;
}
.turn {
  padding: 4px;
}
.form {
  display: grid;
  gap: 12px;
}
.file {
  display: grid;
  gap: 4px;
  border-top: 1px solid var(--line);
  padding-top: 10px;
}
.file ul {
  margin: 0;
  padding-left: 16px;
  max-height: 140px;
  overflow: auto;
}
</style>
