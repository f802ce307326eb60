import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import './design/table.css'
import { vuetify } from './design/theme'
import { router } from './router'

createApp(App).use(createPinia()).use(vuetify).use(router).mount('#app')
