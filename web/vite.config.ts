import react from '@vitejs/plugin-react';
import { defineConfig } from 'vitest/config';

// While working on the pages, the API is asked of a server that ./start runs.
export default defineConfig({
  plugins: [react()],
  server: { proxy: { '/api': 'http://127.0.0.1:8420' } },
  build: { target: 'es2022', assetsInlineLimit: 0 },
  test: { include: ['src/**/*.test.{ts,tsx}'] },
});
