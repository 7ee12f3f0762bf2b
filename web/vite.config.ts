import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vitest/config'

const SERVER = 'http://127.0.0.1:8420'

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: {
    outDir: 'dist',
    emptyOutDir: true,
    target: 'es2022',
    chunkSizeWarningLimit: 1200,
    license: { fileName: 'licences.md' },
  },
  // for work on the page alone: the server of ./ironing start behind Vite's own, which it takes for a stranger
  // by its Host and Origin
  server: {
    host: '127.0.0.1',
    port: 5173,
    proxy: { '/api': { target: SERVER, changeOrigin: true, headers: { origin: SERVER } } },
  },
  test: { include: ['src/**/*.test.ts'] },
})
