import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

// The dev server hands the API to a Gurvo demo on its usual port.
export default defineConfig({
  plugins: [react()],
  build: { target: 'es2022', assetsInlineLimit: 0 },
  server: { proxy: { '/api': 'http://127.0.0.1:8700' } },
});
