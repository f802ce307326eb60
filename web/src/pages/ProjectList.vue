<script setup lang="ts">
import { mdiTrashCanOutline, mdiTrayArrowDown, mdiTrayArrowUp } from '@mdi/js'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, Refusal, type ProjectCard } from '../api/client'
import ImportQuestion from '../panels/arrival/ImportQuestion.vue'
import PreparedFile from '../panels/arrival/PreparedFile.vue'
import { filesOf, plain } from '../stores/bundle'
import { PREPARED_FORMATS } from '../stores/preparation'
import { listen } from '../stores/events'
import { useImports } from '../stores/imports'
import { useJobs } from '../stores/jobs'
import { useSession } from '../stores/session'
import { counted } from '../stores/workspace'
import AccountsDialog from '../panels/header/AccountsDialog.vue'
import OwnAccountDialog from '../panels/header/OwnAccountDialog.vue'
import JobsMenu from '../panels/shared/JobsMenu.vue'
import { moment } from '../panels/shared/moment'
import { timeLeft } from '../panels/shared/timeLeft'

const router = useRouter()
const session = useSession()
const imports = useImports()
const projects = ref<ProjectCard[] | null>(null)
const problem = ref('')
const formats = ref('')
const doomed = ref<ProjectCard | null>(null)
const over = ref(false)
const people = ref(false)
const own = ref(false)
const chooser = ref<HTMLInputElement | null>(null)
let stop = () => {}

onMounted(() => {
  void load()
  void api
    .limits()
    .then((l) => (formats.value = [...PREPARED_FORMATS, ...l.formats].join(', ')))
    .catch(() => undefined) // the list of projects says that Zolvan can't be reached
  stop = listen({
    job: (news) => {
      imports.hear(news)
      useJobs().hear(news)
      if (news.state === 'DONE' && news.id !== imports.job?.id) void load() // one that another tab began
    },
    open: () => void imports.catchUp(),
  })
})
onBeforeUnmount(() => stop())

watch(
  () => imports.job?.state,
  (state) => {
    if (state === 'DONE' && imports.job?.result && !imports.into)
      void router.push(`/projects/${imports.job.result}`)
  },
)

async function load() {
  try {
    projects.value = await api.projects()
  } catch (e) {
    problem.value = e instanceof Refusal ? e.message : 'The projects could not be read.'
  }
}

const notice = ref('')
async function save(p: ProjectCard) {
  notice.value = ''
  try {
    useJobs().hear(await api.writeProjectFile(p.id))
    notice.value = `“${p.name}” is being written. The file will be under Long work, above.`
  } catch (e) {
    problem.value = e instanceof Refusal ? e.message : 'The project could not be written.'
  }
}

async function take(event: DragEvent) {
  over.value = false
  if (imports.busy || !event.dataTransfer) return
  await imports.start(await filesOf(event.dataTransfer))
}

function choose(event: Event) {
  const input = event.target as HTMLInputElement
  const files = input.files ? plain(input.files) : []
  if (!imports.busy) void imports.start(files)
  input.value = ''
}

const progress = computed(() => {
  if (imports.uploaded !== null)
    return { share: imports.uploaded, text: imports.stage === 'gather' ? 'Gathering the files' : 'Sending' }
  const job = imports.job
  if (!job) return { share: 0, text: '' }
  const left = job.secondsLeft ? ` · ${timeLeft(job.secondsLeft)}` : ''
  return { share: job.share, text: (job.step || 'Waiting for its turn') + left }
})

async function remove() {
  const project = doomed.value
  doomed.value = null
  if (!project) return
  try {
    await api.deleteProject(project.id)
  } catch (e) {
    problem.value = e instanceof Refusal ? e.message : 'It could not be deleted.'
  }
  await load()
}

async function signOut() {
  await session.signOut()
  await router.push('/sign-in')
}
</script>

<template>
  <div class="page">
    <header>
      <b class="name">Zolvan</b>
      <span class="soft">{{ session.account?.displayName }}</span>
      <JobsMenu />
      <v-btn size="small" @click="own = true">Your account</v-btn>
      <v-btn size="small" @click="people = true">People</v-btn>
      <v-btn size="small" @click="signOut">Sign out</v-btn>
      <OwnAccountDialog v-model="own" />
      <AccountsDialog v-model="people" />
    </header>
    <main>
      <h1>Projects</h1>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <p v-if="notice" class="soft notice" role="status">{{ notice }}</p>
      <div class="grid">
        <section
          class="card drop"
          :class="{ over }"
          aria-label="New project from a model file"
          @dragover.prevent="over = true"
          @dragleave="over = false"
          @drop.prevent="take"
        >
          <ImportQuestion
            v-if="imports.job?.state === 'ASKING' && imports.job.question"
            :file-name="imports.fileName"
            :question="imports.job.question"
            @answer="imports.answer"
            @cancel="imports.cancel()"
          />
          <PreparedFile
            v-else-if="imports.waiting"
            :file-name="imports.fileName"
            :kind="imports.waiting.kind"
            :fineness="imports.waiting.fineness"
            :prepared="imports.waiting.prepared"
            :seconds="imports.seconds"
            @cut="imports.cutAgain"
            @send="imports.sendPrepared"
            @cancel="imports.cancel()"
          />
          <template v-else-if="imports.busy && imports.stage === 'prepare'">
            <b class="file">{{ imports.fileName }}</b>
            <div class="meter" role="progressbar" aria-label="Turning surfaces into triangles">
              <i class="running" />
            </div>
            <span class="soft small">Turning surfaces into triangles · {{ imports.seconds }} s</span>
            <v-btn size="small" @click="imports.cancel()">Call off</v-btn>
          </template>
          <template v-else-if="imports.busy">
            <b class="file">{{ imports.fileName }}</b>
            <div
              class="meter"
              role="progressbar"
              :aria-valuenow="Math.round(progress.share * 100)"
              aria-valuemin="0"
              aria-valuemax="100"
            >
              <i :style="{ width: `${100 * progress.share}%` }" />
            </div>
            <span class="soft small progress-text"
              >{{ progress.text }} · {{ Math.round(progress.share * 100) }} %</span
            >
            <v-btn size="small" @click="imports.cancel()">Call off</v-btn>
          </template>
          <template v-else>
            <v-icon :icon="mdiTrayArrowUp" size="28" />
            <b>New project from a model</b>
            <span class="soft small"
              >Drop a file, several, or a folder: {{ formats }}, alone or with their textures; or a project
              file.</span
            >
            <v-btn color="primary" variant="flat" @click="chooser?.click()">Choose files</v-btn>
            <p v-if="imports.problem" class="problem small" role="alert">{{ imports.problem }}</p>
          </template>
          <input ref="chooser" type="file" multiple hidden @change="choose" />
        </section>
        <article v-for="p in projects ?? []" :key="p.id" class="card project">
          <router-link :to="`/projects/${p.id}`" class="open">
            <img v-if="p.pictured" :src="`${api.thumbnailAddress(p.id)}?${p.touchedAt}`" alt="" />
            <span v-else class="blank">{{ p.name.slice(0, 1) }}</span>
            <b>{{ p.name }}</b>
            <span class="soft small">{{ p.client || 'No client yet' }}</span>
            <span class="soft small"
              >{{ counted(p.parts, 'part') }} · {{ moment(p.touchedAt)
              }}{{ p.own ? '' : ' · shared with you' }}</span
            >
          </router-link>
          <button class="plain bin file" :aria-label="`Save ${p.name} as a file`" @click="save(p)">
            <v-icon :icon="mdiTrayArrowDown" size="18" />
            <v-tooltip activator="parent" location="top">Save as a project file</v-tooltip>
          </button>
          <button v-if="p.own" class="plain bin" :aria-label="`Delete ${p.name}`" @click="doomed = p">
            <v-icon :icon="mdiTrashCanOutline" size="18" />
            <v-tooltip activator="parent" location="top">Delete this project</v-tooltip>
          </button>
        </article>
        <p v-if="projects === null && !problem" class="soft">Reading the projects …</p>
      </div>
    </main>
    <v-dialog :model-value="doomed !== null" @update:model-value="doomed = null">
      <v-card title="Delete this project?">
        <v-card-text>
          “{{ doomed?.name }}”, its model and everything done to it will be gone. This can’t be undone.
        </v-card-text>
        <v-card-actions>
          <v-btn @click="doomed = null">Keep it</v-btn>
          <v-btn color="error" variant="flat" @click="remove">Delete</v-btn>
        </v-card-actions>
      </v-card>
    </v-dialog>
  </div>
</template>

<style scoped>
.page {
  height: 100vh;
  display: grid;
  grid-template-rows: 48px 1fr;
}
header {
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 0 24px;
  background: var(--paper);
  border-bottom: 1px solid var(--line);
}
.name {
  font-weight: 650;
  font-size: 15px;
  margin-right: auto;
}
main {
  overflow: auto;
  padding: 24px;
}
h1 {
  font-size: 20px;
  font-weight: 650;
  margin-bottom: 16px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, 296px);
  gap: 16px;
}
.card {
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: var(--radius);
  height: 276px;
  position: relative;
}
.drop {
  border: 1.5px dashed var(--line-strong);
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 10px;
  text-align: center;
  padding: 20px 26px;
}
.drop.over {
  border-color: var(--accent);
  background: var(--accent-wash);
}
.file {
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
}
.open {
  display: flex;
  flex-direction: column;
  height: 100%;
  color: inherit;
  text-decoration: none;
}
.open img,
.blank {
  height: 194px;
  width: 100%;
  object-fit: cover;
  background: #c6c5c1;
  border-radius: var(--radius) var(--radius) 0 0;
  margin-bottom: 10px;
}
.blank {
  display: grid;
  place-items: center;
  font-size: 64px;
  font-weight: 300;
  color: #8f8c86;
}
.open b,
.open span:not(.blank) {
  padding: 0 14px;
}
.bin {
  position: absolute;
  right: 10px;
  bottom: 10px;
  color: var(--soft);
}
.notice {
  margin-bottom: 12px;
}
.bin.file {
  right: 36px;
}
</style>
