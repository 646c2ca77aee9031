import react from '@vitejs/plugin-react';
import { VitePWA } from 'vite-plugin-pwa';
import { defineConfig } from 'vitest/config';

// While working on the pages, the API is asked of a server that ./start runs.
export default defineConfig({
  plugins: [
    react(),
    // Once opened, the pages open again without the server, and a bench stands where it stood.
    VitePWA({
      strategies: 'generateSW',
      injectRegister: false,
      manifest: false,
      workbox: {
        inlineWorkboxRuntime: true,
        sourcemap: false,
        skipWaiting: true,
        clientsClaim: true,
        globPatterns: ['**/*.{js,css,html,woff2}'],
        globIgnores: ['**/TurningRing*'],
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//],
        runtimeCaching: [
          {
            urlPattern: /\/api\/(me|styles|sizes\/scales|jobs(\/[0-9a-f-]{36})?)(\?|$)/,
            handler: 'NetworkFirst',
            options: { cacheName: 'records', expiration: { maxEntries: 80 } },
          },
        ],
      },
    }),
  ],
  server: { proxy: { '/api': 'http://127.0.0.1:8420' } },
  build: { target: 'es2022', assetsInlineLimit: 0 },
  test: { include: ['src/**/*.test.{ts,tsx}'] },
});
