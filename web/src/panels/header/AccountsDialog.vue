<script setup lang="ts">
import { reactive, ref, shallowRef, watch } from 'vue'
import { api, type OtherAccount } from '../../api/client'
import { useRefusal } from '../shared/refusal'

/** Who may sign in; whoever set Zolvan up makes accounts for others here. */
const open = defineModel<boolean>({ required: true })
const accounts = shallowRef<OtherAccount[]>([])
const fresh = reactive({ login: '', name: '', password: '' })
const { refused, attempt } = useRefusal()
const told = ref('')
/** Whether accounts may be made here at all. */
const may = ref(false)

watch(open, async (is) => {
  if (!is) return
  told.value = ''
  may.value = await attempt(async () => (accounts.value = await api.accounts()))
})
async function make() {
  const done = await attempt(async () => {
    const made = await api.createAccount({ ...fresh })
    told.value = `${made.displayName} signs in as ${made.login}.`
    accounts.value = await api.accounts()
  })
  if (done) Object.assign(fresh, { login: '', name: '', password: '' })
}
</script>

<template>
  <v-dialog v-model="open">
    <v-card title="People who may sign in">
      <v-card-text class="accounts">
        <p v-if="refused" class="problem" role="alert">{{ refused }}</p>
        <p v-if="told" role="status">{{ told }}</p>
        <template v-if="may">
          <ul>
            <li v-for="a in accounts" :key="a.id">
              <b>{{ a.name }}</b> <span class="soft">{{ a.login }}</span>
              <span v-if="a.administrator" class="soft small">makes accounts</span>
            </li>
          </ul>
          <form @submit.prevent="make">
            <label
              >Signs in as <input v-model="fresh.login" class="field" maxlength="64" autocomplete="off"
            /></label>
            <label>Name shown <input v-model="fresh.name" class="field" maxlength="100" /></label>
            <label>
              First password
              <input
                v-model="fresh.password"
                class="field"
                type="password"
                maxlength="200"
                autocomplete="new-password"
              />
            </label>
            <v-btn type="submit" :disabled="!fresh.login || !fresh.password">Make the account</v-btn>
          </form>
        </template>
      </v-card-text>
      <v-card-actions><v-btn @click="open = false">Close</v-btn></v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.accounts {
  display: grid;
  gap: 10px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
  max-height: 200px;
  overflow: auto;
}
li {
  display: flex;
  gap: 10px;
  padding: 3px 0;
  border-bottom: 1px solid var(--line);
}
form {
  display: grid;
  gap: 8px;
  justify-items: start;
}
label {
  display: grid;
  grid-template-columns: 110px 240px;
  align-items: center;
}
</style>
