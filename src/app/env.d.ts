/// <reference types="vite/client" />
declare module '*.wasm?url' {
  const url: string;
  export default url;
}
declare module 'splitpanes';
declare module '*.vue' {
  import type { DefineComponent } from 'vue';
  const component: DefineComponent<object, object, unknown>;
  export default component;
}
