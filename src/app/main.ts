import './theme/reset.css';
import '@fontsource-variable/archivo';
import '@fontsource-variable/jetbrains-mono';
import 'vuetify/styles';
import 'splitpanes/dist/splitpanes.css';
import './theme/base.css';
import { createPinia } from 'pinia';
import { createApp } from 'vue';
import App from './App.vue';
import { router } from './router';
import { vuetify } from './theme/vuetify';

createApp(App).use(createPinia()).use(router).use(vuetify).mount('#app');
