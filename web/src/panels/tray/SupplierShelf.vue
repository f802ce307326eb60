<script setup lang="ts">
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import { api, Refusal, type Article, type ArticleKind, type Judged } from '../../api/client'
import { useFinding } from '../../stores/finding'
import { useWorkspace } from '../../stores/workspace'
import LengthField from '../shared/LengthField.vue'
import { factLines } from './measures'
import { lengthSaid } from '../shared/lengths'

/** A supplier's samples: what they are, what they lack, and bringing one into the project. */
const PAUSE = 250
const AT_ONCE = 3
const workspace = useWorkspace()
const finding = useFinding()
const words = ref('')
const kind = ref('')
const connected = ref(true)
const supplier = ref('')
const total = ref(0)
const kinds = shallowRef<ArticleKind[]>([])
const articles = shallowRef<Article[]>([])
const chosen = ref<string | null>(null)
/** Of what the photograph shows, in metres; 0 while nobody has told. */
const width = ref(0)
/** Whether edges that don't meet are made to. */
const meet = ref(true)
const usableOnly = ref(false)
const failed = ref('')
const bringing = ref(false)
const judged = reactive(new Map<string, Judged | string>())
let asked = 0
let waiting = 0
let judging = 0
const queue: string[] = []

const article = computed(() => articles.value.find((a) => a.number === chosen.value))
const verdict = computed(() => {
  const j = chosen.value ? judged.get(chosen.value) : undefined
  return typeof j === 'object' ? j : undefined
})
const shown = computed(() =>
  usableOnly.value ? articles.value.filter((a) => isUsable(a.number) !== false) : articles.value,
)
const inProject = computed(
  () => new Set((workspace.state?.palette ?? []).map((u) => u.material.facts?.article ?? '').filter(Boolean)),
)

/** Whether its photograph can be laid over a model as it is; unknown while nobody has looked. */
function isUsable(number: string): boolean | undefined {
  const j = judged.get(number)
  return typeof j === 'object' ? j.usable : j === undefined ? undefined : false
}

async function ask(from: number) {
  const mine = ++asked
  failed.value = ''
  try {
    const page = await api.articles(words.value, kind.value, from)
    if (mine !== asked) return
    connected.value = page.connected
    supplier.value = page.supplier || supplier.value
    total.value = page.total
    kinds.value = page.kinds
    articles.value = from === 0 ? page.articles : [...articles.value, ...page.articles]
    for (const a of page.articles) judge(a.number)
  } catch (e) {
    if (mine === asked) failed.value = e instanceof Refusal ? e.message : 'The catalogue can’t be asked.'
  }
}
watch([words, kind], () => {
  window.clearTimeout(waiting)
  waiting = window.setTimeout(() => void ask(0), PAUSE)
})
void ask(0)

/** Has photographs looked at, a few at a time. */
function judge(number: string) {
  if (judged.has(number) || queue.includes(number)) return
  queue.push(number)
  next()
}
function next() {
  if (judging >= AT_ONCE) return
  const number = queue.shift()
  if (!number) return
  judging++
  api
    .judged(number)
    .then((j) => judged.set(number, j))
    .catch((e: unknown) => judged.set(number, e instanceof Refusal ? e.message : 'No picture came.'))
    .finally(() => {
      judging--
      next()
    })
}
function again(number: string) {
  judged.delete(number)
  judge(number)
}

function choose(a: Article) {
  chosen.value = a.number
  width.value = a.size?.[0] ?? 0
}
async function bring() {
  const a = article.value
  if (!a) return
  bringing.value = true
  const told = a.size?.[0] === width.value ? null : width.value
  const how = { width: told, meet: meet.value && verdict.value?.tiles === false }
  const done = await workspace.run((v) => api.bringArticle(workspace.id, v, a.number, how))
  bringing.value = false
  if (!done) return
  workspace.chosen = workspace.state?.palette.at(-1)?.material.id ?? null
  workspace.tell(`${a.name} lies in the palette`)
}
function scrolled(e: Event) {
  const box = e.target as HTMLElement
  const near = box.scrollHeight - box.scrollTop - box.clientHeight < 200
  if (near && articles.value.length < total.value) void ask(articles.value.length)
}
function stockText(a: Article): string {
  const lead = a.leadDays === null ? '' : `, ${a.leadDays} days`
  if (a.stock === null) return a.leadDays === null ? 'not told' : `${a.leadDays} days`
  return a.stock > 0 ? `${a.stock.toLocaleString('en')} m² in stock${lead}` : `none in stock${lead}`
}
const lines = computed(() => {
  const a = article.value
  if (!a) return []
  const all: [string, string][] = [['Stock', stockText(a)]]
  if (a.size) all.push(['Shows', a.size.map((m) => lengthSaid(m, workspace.state?.unit)).join(' × ')])
  return [...all, ...factLines(a.facts)]
})
</script>

<template>
  <div class="shelf" role="region" aria-label="Supplier’s samples">
    <div class="left">
      <div class="top">
        <b>{{ supplier }}</b>
        <input
          v-model="words"
          class="field find"
          type="search"
          placeholder="Find a sample"
          aria-label="Find a sample"
        />
        <select v-model="kind" class="field kind" aria-label="Kind of sample">
          <option value="">All kinds</option>
          <option v-for="k in kinds" :key="k.kind" :value="k.kind">{{ k.kind }} · {{ k.count }}</option>
        </select>
        <label class="small"
          ><input v-model="usableOnly" type="checkbox" /> Only what can be laid as it is</label
        >
        <span class="soft small" role="status">{{ connected ? `${total} samples` : '' }}</span>
      </div>
      <p v-if="failed" class="soft told">
        {{ failed }} <button class="plain link" @click="ask(0)">Ask again</button>
      </p>
      <p v-else-if="!connected" class="soft told">No supplier’s catalogue belongs to this installation.</p>
      <p v-else-if="shown.length === 0" class="soft told">
        Nothing here is like that. Try another word or kind.
      </p>
      <div class="cards" @scroll.passive="scrolled">
        <button
          v-for="a in shown"
          :key="a.number"
          class="plain sample"
          :class="{ on: a.number === chosen, no: isUsable(a.number) === false }"
          :aria-pressed="a.number === chosen"
          :data-article="a.number"
          @click="choose(a)"
        >
          <img
            v-if="typeof judged.get(a.number) === 'object'"
            :src="api.photoAddress(a.number)"
            :alt="a.name"
          />
          <span v-else class="blank small soft">{{ judged.has(a.number) ? 'no picture' : '…' }}</span>
          <span class="words small">
            <b>{{ a.number }}</b> {{ a.name }}<br />
            <span class="soft">{{ a.facts.price === null ? 'no price' : `${a.facts.price} per m²` }}</span>
            <span v-if="a.stock === 0" class="mark"> · none in stock</span>
            <span v-if="isUsable(a.number) === false" class="mark"> · not as it is</span>
          </span>
        </button>
      </div>
    </div>
    <div class="right">
      <p v-if="!article" class="soft small">
        Choose a sample to see what is known of it before you bring it in.
      </p>
      <template v-else>
        <img v-if="verdict" class="large" :src="api.photoAddress(article.number)" :alt="article.name" />
        <p>
          <b>{{ article.number }}</b> {{ article.name }}
        </p>
        <dl class="small">
          <template v-for="[name, value] in lines" :key="name">
            <dt class="soft">{{ name }}</dt>
            <dd>{{ value }}</dd>
          </template>
        </dl>
        <p v-for="r in verdict?.remarks ?? []" :key="r" class="small lacks">{{ r }}</p>
        <p v-if="verdict?.mended" class="small soft">It is cut out and straightened when you bring it in.</p>
        <p v-if="article.lacks.length > 0" class="small lacks">Not told: {{ article.lacks.join(', ') }}.</p>
        <template v-if="typeof judged.get(article.number) === 'string'">
          <p class="small lacks">{{ judged.get(article.number) }}</p>
          <v-btn size="small" @click="again(article.number)">Ask for the picture again</v-btn>
        </template>
        <div v-else-if="verdict" class="do">
          <label class="small wide">
            {{ width > 0 ? 'It shows a width of' : 'How wide is what it shows?' }}
            <LengthField v-model="width" label="Width of what it shows" />
          </label>
          <label v-if="!verdict.tiles" class="small meet" title="A repeat gets a little smaller">
            <input v-model="meet" type="checkbox" /> Make its edges meet
          </label>
          <v-btn
            size="small"
            color="primary"
            variant="flat"
            :loading="bringing"
            :disabled="width <= 0"
            @click="bring"
          >
            {{ inProject.has(article.number) ? 'Bring in once more' : 'Bring into the palette' }}
          </v-btn>
          <button
            v-if="inProject.has(article.number)"
            class="plain small link"
            @click="finding.drawer = 'palette'"
          >
            It lies in the palette
          </button>
        </div>
      </template>
    </div>
  </div>
</template>

<style scoped>
.shelf {
  grid-column: 2 / -1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 250px;
  min-height: 0;
  background: var(--paper);
}
.left {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.top {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 7px 12px;
}
.top input[type='checkbox'],
.meet input {
  accent-color: var(--accent);
  vertical-align: -2px;
}
.find,
.kind {
  width: 150px;
  height: 24px;
  font-size: 12px;
}
.told {
  padding: 0 12px 6px;
}
.cards {
  flex: 1;
  overflow: auto;
  padding: 2px 12px 10px;
  display: grid;
  grid-template-columns: repeat(auto-fill, 128px);
  gap: 10px;
  align-content: start;
  grid-auto-rows: max-content;
}
.sample {
  display: grid;
  align-content: start;
  border: 1px solid #c6c3bd;
  border-radius: var(--radius);
  background: #fdfcfa;
  overflow: hidden;
}
.sample.on {
  outline: 2px solid var(--accent);
}
.sample.no img {
  opacity: 0.55;
}
.sample img,
.blank {
  display: block;
  width: 100%;
  height: 84px;
  object-fit: cover;
}
.blank {
  display: grid;
  place-items: center;
  background: var(--well);
}
.words {
  display: block;
  padding: 3px 6px 5px;
  line-height: 1.25;
}
.mark,
.lacks {
  color: var(--amber);
}
.right {
  border-left: 1px solid var(--line);
  padding: 8px 12px;
  overflow: auto;
  display: grid;
  gap: 6px;
  align-content: start;
}
.do {
  position: sticky;
  bottom: -8px;
  display: grid;
  gap: 6px;
  padding: 6px 0 8px;
  background: var(--paper);
  border-top: 1px solid var(--line);
}
.large {
  width: 100%;
  max-height: 150px;
  object-fit: contain;
  background: var(--well);
}
dl {
  display: grid;
  grid-template-columns: 60px 1fr;
  gap: 1px 6px;
  margin: 0;
}
dd {
  margin: 0;
}
.wide {
  display: grid;
  grid-template-columns: 1fr 100px;
  align-items: center;
}
.link {
  color: var(--accent);
}
</style>
