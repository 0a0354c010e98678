import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'

export default defineConfig({
  plugins: [
    vue(),
    // Keeps the built page in the browser, so that it opens with the server stopped. What it shows then is kept by
    // src/shared/offline; the worker answers nothing of the API.
    VitePWA({
      injectRegister: false,
      manifest: false,
      workbox: {
        globPatterns: ['assets/**/*.{js,css,woff2,svg}'],
        // The page as it is served carries a nonce for one answer; the shell is the same page without one.
        additionalManifestEntries: [{ url: '/shell', revision: String(Date.now()) }],
        navigateFallback: null,
        inlineWorkboxRuntime: true,
        sourcemap: false,
        clientsClaim: true,
        skipWaiting: true,
        cleanupOutdatedCaches: true,
        runtimeCaching: [
          {
            urlPattern: ({ request, url }) => request.mode === 'navigate' && !url.pathname.startsWith('/api/'),
            handler: 'NetworkOnly',
            options: { precacheFallback: { fallbackURL: '/shell' } },
          },
        ],
      },
    }),
  ],
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
