import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import vue from '@vitejs/plugin-vue'
import { defineConfig, type Plugin } from 'vite'
import vuetify from 'vite-plugin-vuetify'

const OTHER_SCRIPTS = /(vietnamese|latin-ext)/

/** Writes into the service worker which files of this build it keeps for the times without a
 * connection. */
function keepFiles(): Plugin {
  return {
    name: 'keep-files',
    apply: 'build',
    enforce: 'post',
    generateBundle(_, bundle) {
      const worker = bundle['sw.js']
      if (worker?.type !== 'chunk') throw new Error('the service worker was not built')
      const files = Object.keys(bundle)
        .filter((name) => name.startsWith('assets/') && !OTHER_SCRIPTS.test(name))
        .map((name) => ({ url: `/static/${name}`, revision: null }))
      const page = createHash('sha256')
        .update(readFileSync('index.html'))
        .update(JSON.stringify(files))
        .digest('hex')
      const kept = [...files, { url: '/', revision: page }]
      worker.code = worker.code.replace('self.__KEPT_FILES', JSON.stringify(kept))
    },
  }
}

export default defineConfig(({ command }) => ({
  base: command === 'build' ? '/static/' : '/',
  plugins: [vue({ features: { optionsAPI: false } }), vuetify({ autoImport: true }), keepFiles()],
  build: {
    target: 'es2022',
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 800,
    rollupOptions: {
      input: { main: 'index.html', sw: 'src/trip/sw.ts' },
      output: {
        entryFileNames: ({ name }) => (name === 'sw' ? 'sw.js' : 'assets/[name]-[hash].js'),
      },
    },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8000' } },
}))
