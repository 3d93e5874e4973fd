import react from '@vitejs/plugin-react';
import { defaultClientConditions, defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

export default defineConfig({
  plugins: [
    react(),
    // After one visit the whole application opens without a server: a stage has no network.
    VitePWA({
      registerType: 'autoUpdate',
      injectRegister: 'script-defer',
      manifest: { name: 'Yunta', short_name: 'Yunta', display: 'standalone', background_color: '#131412', icons: [] },
      workbox: {
        globPatterns: ['**/*.{js,css,html,wasm,woff2,svg}'],
        maximumFileSizeToCacheInBytes: 12_000_000,
        navigateFallbackDenylist: [/^\/api/],
      },
    }),
  ],
  resolve: { conditions: ['source', ...defaultClientConditions] },
  worker: { format: 'es' },
  build: { target: 'es2023', chunkSizeWarningLimit: 1500, rollupOptions: { output: { manualChunks: undefined } } },
});
