<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { api, type Library, type LibraryRole, type Member } from '../../api/client'
import { useLibraries } from '../../stores/libraries'
import { useSession } from '../../stores/session'
import { useWorkspace } from '../../stores/workspace'

/** Who may do what in a team's library. */
const props = defineProps<{ library: Library }>()
const emit = defineEmits<{ gone: [] }>()
const workspace = useWorkspace()
const libraries = useLibraries()
const session = useSession()
const ROLES: { value: LibraryRole; text: string; says: string }[] = [
  { value: 'USE', text: 'Use', says: 'sees and uses what is approved' },
  { value: 'EDIT', text: 'Edit', says: 'keeps, changes and takes out; what is kept waits for approval' },
  { value: 'APPROVE', text: 'Approve', says: 'approves, and says who may do what' },
]
const members = shallowRef<Member[]>([])
const login = ref('')
const role = ref<LibraryRole>('USE')
const deleting = ref(false)
const may = computed(() => props.library.role === 'APPROVE')

watch(
  () => libraries.known,
  async () => {
    try {
      members.value = await api.members(props.library.id)
    } catch {
      members.value = []
    }
  },
  { immediate: true },
)
async function add() {
  const who = login.value.trim()
  if (await libraries.act(() => api.putMember(props.library.id, who, role.value), `${who} is in`))
    login.value = ''
}
function change(m: Member, e: Event) {
  const to = (e.target as HTMLSelectElement).value as LibraryRole
  void libraries.act(() => api.putMember(props.library.id, m.login, to))
}
async function remove(m: Member) {
  const me = m.account === session.account?.id
  const done = await libraries.act(() => api.removeMember(props.library.id, m.account), `${m.name} is out`)
  if (done && me) emit('gone')
}
async function deleteAll() {
  const name = props.library.name
  if (await libraries.act(() => api.deleteLibrary(props.library.id), `${name} is gone`)) emit('gone')
  else workspace.tell(workspace.problem)
}
</script>

<template>
  <div class="people">
    <form v-if="may" class="new" @submit.prevent="add">
      <input v-model="login" class="field" placeholder="Account name" aria-label="Account name" />
      <select v-model="role" class="field" aria-label="Role">
        <option v-for="r in ROLES" :key="r.value" :value="r.value">{{ r.text }}</option>
      </select>
      <v-btn size="small" type="submit" :disabled="!login.trim()">Take in</v-btn>
      <span class="soft small">{{ ROLES.find((r) => r.value === role)?.says }}</span>
    </form>
    <p v-if="may" class="soft small">
      Whoever has no account yet gets one under your name, top right: People who may sign in.
    </p>
    <table>
      <tbody>
        <tr v-for="m in members" :key="m.account">
          <td>{{ m.name }}</td>
          <td class="soft">{{ m.login }}</td>
          <td>
            <select
              v-if="may"
              class="field"
              :aria-label="`Role of ${m.name}`"
              :value="m.role"
              @change="change(m, $event)"
            >
              <option v-for="r in ROLES" :key="r.value" :value="r.value">{{ r.text }}</option>
            </select>
            <template v-else>{{ ROLES.find((r) => r.value === m.role)?.text }}</template>
          </td>
          <td class="soft small">{{ ROLES.find((r) => r.value === m.role)?.says }}</td>
          <td>
            <button
              v-if="may || m.account === session.account?.id"
              class="plain small link"
              @click="remove(m)"
            >
              {{ m.account === session.account?.id ? 'Leave' : 'Take out' }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <div v-if="may" class="end small">
      <button v-if="!deleting" class="plain link" @click="deleting = true">Delete this library …</button>
      <template v-else>
        <span>Everything in it goes, for everybody. Projects keep what they show.</span>
        <v-btn size="small" color="primary" variant="flat" @click="deleteAll">Delete it</v-btn>
        <v-btn size="small" @click="deleting = false">Leave it</v-btn>
      </template>
    </div>
  </div>
</template>

<style scoped>
.people {
  padding: 10px 12px;
}
.new {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-bottom: 8px;
}
.new .field {
  width: 180px;
  height: 26px;
}
.new select.field {
  width: 110px;
}
td {
  padding: 3px 16px 3px 0;
  border-bottom: 1px solid var(--line);
}
td .field {
  height: 24px;
  width: 110px;
  font-size: 12px;
}
table {
  border-collapse: collapse;
}
.end {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-top: 12px;
}
.link {
  color: var(--accent);
}
</style>
