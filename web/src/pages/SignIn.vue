<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, Refusal } from '../api/client'
import { useSession } from '../stores/session'

const session = useSession()
const route = useRoute()
const router = useRouter()
const first = ref(false)
const login = ref('')
const displayName = ref('')
const password = ref('')
const problem = ref('')
const busy = ref(false)

onMounted(async () => {
  first.value = await api.isFirstStart().catch(() => false)
})

async function go() {
  busy.value = true
  problem.value = ''
  try {
    if (first.value) await session.createFirst(login.value, displayName.value, password.value)
    else await session.signIn(login.value, password.value)
    await router.push(typeof route.query['to'] === 'string' ? route.query['to'] : '/projects')
  } catch (e) {
    problem.value = e instanceof Refusal ? e.message : 'Signing in failed. Try again.'
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
      <p class="soft">
        {{
          first
            ? 'Nobody works here yet. Make the first account.'
            : 'Dress design models, and show what they will be.'
        }}
      </p>
      <label>
        Account
        <input v-model="login" class="field" name="login" autocomplete="username" autofocus required />
      </label>
      <label v-if="first">
        Your name or studio
        <input v-model="displayName" class="field" name="displayName" autocomplete="organization" />
      </label>
      <label>
        Password
        <input
          v-model="password"
          class="field"
          name="password"
          type="password"
          :autocomplete="first ? 'new-password' : 'current-password'"
          required
        />
      </label>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <v-btn type="submit" color="primary" variant="flat" :loading="busy" block height="32">
        {{ first ? 'Make the account' : 'Sign in' }}
      </v-btn>
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
</style>
