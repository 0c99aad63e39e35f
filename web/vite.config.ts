import { defineConfig, type Plugin } from 'vite';
import react from '@vitejs/plugin-react';

/** What reads print and codes in a picture is large, and kept by whoever uses it once. */
const readerFiles = /(?:tesseract|traineddata|worker\.min|zxing)/;

/** Lists every built file, so that the service worker can keep the whole application for a reload without a server. */
function precacheList(): Plugin {
  return {
    name: 'precache-list',
    generateBundle(_options, bundle) {
      const files = Object.keys(bundle)
        .filter(
          (name) => name !== 'sw.js' && !name.endsWith('.map') && !/\.woff$/.test(name) && !readerFiles.test(name),
        )
        .map((name) => (name === 'index.html' ? '/' : `/${name}`));
      this.emitFile({
        type: 'asset',
        fileName: 'precache.json',
        source: JSON.stringify([...new Set(['/', ...files])]),
      });
    },
  };
}

/** The reader of print asks for its data by its own name, in a folder that it is given; every other name has a hash. */
const assetFileNames = ({ names }: { readonly names: readonly string[] }) =>
  names.some((name) => name.endsWith('.traineddata.gz'))
    ? 'assets/traineddata-4.0.0-best-int/[name][extname]'
    : 'assets/[name]-[hash][extname]';

export default defineConfig({
  plugins: [react(), precacheList()],
  resolve: { conditions: ['fairwatt-source', 'module', 'browser', 'development|production'] },
  build: {
    target: 'es2023',
    chunkSizeWarningLimit: 1200,
    rolldownOptions: {
      input: { main: 'index.html', sw: 'src/offline/sw.ts' },
      output: {
        entryFileNames: (chunk) => (chunk.name === 'sw' ? 'sw.js' : 'assets/[name]-[hash].js'),
        assetFileNames,
      },
    },
  },
  worker: {
    format: 'es',
    rolldownOptions: { output: { assetFileNames } },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:4870' } },
});
