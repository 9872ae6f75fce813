import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers'
import Components from 'unplugin-vue-components/vite'
import { type Plugin } from 'vite'
import { defineConfig } from 'vitest/config'

/** The list of all files that the page is made of, for the worker that keeps it on the device. */
function shellList(): Plugin {
  return {
    name: 'shell-list',
    generateBundle(_options, bundle) {
      const files = Object.keys(bundle).filter((name) => name.startsWith('assets/'))
      this.emitFile({
        type: 'asset',
        fileName: 'assets/shell.json',
        source: JSON.stringify(files.map((name) => `/${name}`)),
      })
    },
  }
}

export default defineConfig({
  plugins: [
    vue(),
    Components({ resolvers: [ElementPlusResolver()], dirs: [], dts: 'src/components.d.ts' }),
    shellList(),
  ],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  build: { outDir: '../src/hollet/web/dist', emptyOutDir: true, target: 'es2022' },
  // Element Plus asks for its own style sheets, which node alone cannot load
  test: { server: { deps: { inline: ['element-plus'] } } },
  server: { proxy: { '/api': 'http://127.0.0.1:8765', '/ws': { target: 'ws://127.0.0.1:8765', ws: true } } },
})
