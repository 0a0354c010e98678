import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [vue()],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  // Django renders the built page as a template and puts this response's nonce in.
  html: { cspNonce: '{{ request.csp_nonce }}' },
  // `make dev`: Django answers beside it and reloads by itself.
  server: {
    host: '127.0.0.1',
    port: 5321,
    strictPort: true,
    proxy: { '/api': { target: 'http://127.0.0.1:8322', changeOrigin: false } },
  },
  build: { target: 'es2022', assetsInlineLimit: 0, chunkSizeWarningLimit: 700 },
})
