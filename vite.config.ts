import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import vuetify from 'vite-plugin-vuetify';

const server = `http://127.0.0.1:${process.env['PORT'] ?? 4680}`;

export default defineConfig({
  root: 'src/app',
  publicDir: 'public',
  plugins: [vue(), vuetify({ autoImport: true })],
  worker: { format: 'es' },
  build: {
    outDir: '../../dist',
    emptyOutDir: true,
    manifest: true,
    // the licences of everything that ends up in the bundle
    license: { fileName: 'third-party-notices.md' },
    target: 'es2023',
    chunkSizeWarningLimit: 1200,
    assetsInlineLimit: 0,
  },
  server: {
    proxy: { '/library': server, '/demo': server, '/settings.json': server },
    headers: { 'Cross-Origin-Opener-Policy': 'same-origin', 'Cross-Origin-Embedder-Policy': 'require-corp' },
  },
});
