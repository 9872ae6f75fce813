import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { focusFields } from './composables/dialogs'
import { router } from './router'
import { listenLive } from './stores/live'
import { watchReach } from './stores/reach'
import './theme/tokens.css'
import './theme/base.css'

const app = createApp(App)
app.use(createPinia())
app.use(router)
watchReach()
focusFields()
// nothing is drawn before the font is there, so that its arrival moves nothing
void document.fonts.load('460 18px Recursive').finally(() => {
  app.mount('#app')
  listenLive()
})
