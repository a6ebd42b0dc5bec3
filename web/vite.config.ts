import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

// The dev server hands the API to a Gurvo demo on its usual port. The service worker keeps the page itself, never an answer of the
// API: a reload while the server is away loads the page, and what was typed is still there.
export default defineConfig({
  plugins: [
    react(),
    VitePWA({
      registerType: 'autoUpdate',
      injectRegister: 'script-defer',
      manifest: false,
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg,woff2}'],
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//],
      },
    }),
  ],
  build: { target: 'es2022', assetsInlineLimit: 0 },
  server: { proxy: { '/api': 'http://127.0.0.1:8700' } },
});
