import { defineConfig, mergeConfig } from 'vitest/config'
import app from './vite.config.ts'

export default defineConfig((env) =>
  mergeConfig(app(env), {
    test: {
      isolate: false,
      testTimeout: 30_000, // how busy a machine is decides nothing
      experimental: { fsModuleCache: true },
      environment: 'happy-dom',
      environmentOptions: { happyDOM: { url: 'http://workshop.test/' } },
      unstubGlobals: true,
      include: ['src/**/*.test.ts'],
      server: { deps: { inline: ['vuetify'] } },
      restoreMocks: true,
      css: true,
    },
  }),
)
