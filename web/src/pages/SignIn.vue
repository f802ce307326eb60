<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, Refusal } from '../api/client'
import { useSession } from '../stores/session'

/** The ways in: as usual; the first account; a password that was for one time; one forgotten; the word of a letter. */
type Way = 'usual' | 'first' | 'due' | 'forgotten' | 'letter'

const session = useSession()
const route = useRoute()
const router = useRouter()
const letter = typeof route.query['word'] === 'string' ? route.query['word'] : ''
const way = ref<Way>(letter ? 'letter' : 'usual')
const word = ref(new URLSearchParams(route.hash.slice(1)).get('set-up') ?? '')
const login = ref('')
const displayName = ref('')
const password = ref('')
const next = ref('')
const problem = ref('')
const told = ref('')
const busy = ref(false)

const WORDS: Record<Way, { says: string; does: string }> = {
  usual: { says: 'Dress design models, and show what they will be.', does: 'Sign in' },
  first: { says: 'Nobody works here yet. Make the first account.', does: 'Make the account' },
  due: {
    says: 'Your password was for one time only. Choose one of your own.',
    does: 'Keep it and sign in',
  },
  forgotten: {
    says: 'Whoever looks after Zolvan gets a letter with which you can choose a new password.',
    does: 'Write the letter',
  },
  letter: { says: 'Choose a new password.', does: 'Keep it and sign in' },
}
const named = computed(() => way.value !== 'letter')
const hasPassword = computed(() => way.value === 'usual' || way.value === 'first')
const choosesNext = computed(() => way.value === 'due' || way.value === 'letter')

onMounted(async () => {
  if (await api.isFirstStart().catch(() => false)) way.value = 'first'
})

function turn(to: Way) {
  way.value = to
  problem.value = ''
  told.value = ''
}

/** Does what the form says; true where somebody is signed in. */
async function enter(): Promise<boolean> {
  if (way.value === 'forgotten') {
    await api.writeLetter(login.value)
    turn('usual')
    told.value = 'The letter is written, if there is such an account. Ask whoever looks after Zolvan for it.'
    return false
  }
  if (way.value === 'first')
    await session.createFirst(word.value, login.value, displayName.value, password.value)
  else if (way.value === 'letter') await session.reset(letter, next.value)
  else await session.signIn(login.value, password.value, way.value === 'due' ? next.value : null)
  return true
}

async function go() {
  busy.value = true
  problem.value = ''
  told.value = ''
  try {
    if (await enter())
      await router.push(typeof route.query['to'] === 'string' ? route.query['to'] : '/projects')
  } catch (e) {
    if (e instanceof Refusal && e.type === 'password-due') turn('due')
    else problem.value = e instanceof Refusal ? e.message : 'Signing in failed. Try again.'
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <main class="page">
    <section class="samples" aria-hidden="true">
      <div v-for="n in 12" :key="n" class="sample" :class="`s${n}`"><i /></div>
    </section>
    <form class="sheet" @submit.prevent="go">
      <h1>Zolvan</h1>
      <p class="soft">{{ WORDS[way].says }}</p>
      <label v-if="way === 'first'">
        Set-up word, as printed at the start
        <input v-model="word" class="field" name="word" autocomplete="off" spellcheck="false" required />
      </label>
      <label v-if="named">
        Account
        <input
          v-model="login"
          class="field"
          name="login"
          autocomplete="username"
          autofocus
          required
          :readonly="way === 'due'"
        />
      </label>
      <label v-if="way === 'first'">
        Your name or studio
        <input v-model="displayName" class="field" name="displayName" autocomplete="organization" />
      </label>
      <label v-if="hasPassword">
        Password
        <input
          v-model="password"
          class="field"
          name="password"
          type="password"
          :autocomplete="way === 'first' ? 'new-password' : 'current-password'"
          required
        />
      </label>
      <label v-if="choosesNext">
        New password
        <input
          v-model="next"
          class="field"
          name="next"
          type="password"
          autocomplete="new-password"
          required
        />
      </label>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <p v-if="told" role="status">{{ told }}</p>
      <v-btn type="submit" color="primary" variant="flat" :loading="busy" block height="32">
        {{ WORDS[way].does }}
      </v-btn>
      <button v-if="way === 'usual'" type="button" class="plain soft small other" @click="turn('forgotten')">
        Password forgotten?
      </button>
      <button v-else-if="way !== 'first'" type="button" class="plain soft small other" @click="turn('usual')">
        Back to signing in
      </button>
    </form>
  </main>
</template>

<style scoped>
.page {
  height: 100vh;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 420px;
}
.samples {
  background: #c6c5c1;
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  grid-template-rows: repeat(3, 1fr);
  gap: 18px;
  padding: 48px;
}
.sample {
  border-radius: var(--radius);
  position: relative;
  background:
    linear-gradient(
      180deg,
      #ffffff2e 0,
      #fff0 40%,
      #fff0 66%,
      #ffffff5a 74%,
      #fff0 80%,
      #0003 90%,
      #0005 100%
    ),
    var(--tone);
  border-bottom: 44px solid var(--paper);
}
.sample i {
  position: absolute;
  left: 12px;
  top: 12px;
  width: 14px;
  height: 14px;
  border-radius: 50%;
  background: #c6c5c1;
  box-shadow: inset 0 1px 2px #0007;
}
.s1 {
  --tone: #a5281f;
}
.s2 {
  --tone: #b9985a;
}
.s3 {
  --tone: #dbe4e1;
}
.s4 {
  --tone: #24473c;
}
.s5 {
  --tone: #6f4226;
}
.s6 {
  --tone: #e3cda6;
}
.s7 {
  --tone: #4b4f53;
}
.s8 {
  --tone: #c98a2b;
}
.s9 {
  --tone: #e9ddbe;
}
.s10 {
  --tone: #232428;
}
.s11 {
  --tone: #9a9892;
}
.s12 {
  --tone: #a65b3c;
}
.sheet {
  background: var(--paper);
  padding: 0 56px;
  display: flex;
  flex-direction: column;
  justify-content: center;
  gap: 14px;
}
h1 {
  font-size: 30px;
  font-weight: 650;
  letter-spacing: -0.4px;
}
p {
  margin-top: -6px;
}
.field {
  margin-top: 3px;
  height: 34px;
}
.other {
  margin-top: 12px;
  text-decoration: underline;
}
</style>
