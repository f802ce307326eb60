import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import './design/table.css'
import { Refusal } from './api/client'
import { vuetify } from './design/theme'
import { router } from './router'
import { useWorkspace } from './stores/workspace'

const app = createApp(App).use(createPinia()).use(vuetify).use(router)
/** Nothing fails in silence: where the page itself is at fault, it says so and stays usable. */
function fault(e: unknown) {
  console.error(e)
  useWorkspace().problem = e instanceof Refusal ? e.message : 'Something went wrong in this page. Reload it.'
}
app.config.errorHandler = fault
window.addEventListener('unhandledrejection', (e) => fault(e.reason))
app.mount('#app')
