import react from '@vitejs/plugin-react';
import { VitePWA } from 'vite-plugin-pwa';
import { defineConfig } from 'vitest/config';

// While working on the pages, the API is asked of a server that ./start runs.
export default defineConfig({
  plugins: [
    react(),
    // The service worker is src/sw.ts. (Workbox's own template can't be built where a folder's name holds a quote.)
    VitePWA({
      strategies: 'injectManifest',
      srcDir: 'src',
      filename: 'sw.ts',
      injectRegister: false,
      manifest: false,
      injectManifest: {
        globPatterns: ['**/*.{js,css,html,woff2}'],
        globIgnores: ['**/TurningRing*', '**/sw.js'],
      },
    }),
  ],
  server: { proxy: { '/api': 'http://127.0.0.1:8420' } },
  build: { target: 'es2022', assetsInlineLimit: 0 },
  test: { include: ['src/**/*.test.{ts,tsx}'], setupFiles: ['src/testing/strict.ts'] },
});
