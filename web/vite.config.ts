import { basename } from 'node:path';
import { defineConfig } from 'vite';
import react from '@vitejs/plugin-react';
import { VitePWA } from 'vite-plugin-pwa';

/** What reads print and codes in a picture is large, and kept by whoever uses it once. */
const readerFiles = ['tesseract', 'traineddata', 'worker.min', 'zxing'].map((name) => `**/*${name}*`);

/** The service worker keeps the whole application for a reload without a server. */
const serviceWorker = VitePWA({
  strategies: 'injectManifest',
  srcDir: 'src/offline',
  filename: 'sw.ts',
  // The application registers it itself; it is no application of its own on a phone.
  injectRegister: null,
  manifest: false,
  injectManifest: {
    globPatterns: ['assets/**', 'icon.svg'],
    rollupFormat: 'iife',
    globIgnores: ['**/*.map', '**/*.woff', ...readerFiles],
    maximumFileSizeToCacheInBytes: 4 << 20,
  },
});

/** The reader of print asks for its data by its own name, in a folder that it is given; every other name has a hash. */
const assetFileNames = ({ names }: { readonly names: readonly string[] }) => {
  if (names.some((name) => name.endsWith('.traineddata.gz')))
    return 'assets/traineddata-4.0.0-best-int/[name][extname]';
  return `assets/${names.some((name) => name.startsWith('shared~')) ? 'shared' : '[name]'}-[hash][extname]`;
};

/**
 * What every screen needs is one file, what several share are few: each file more is asked for, read and linked by
 * itself, which costs a page more than the bytes do. With its own a group takes all that this needs and no group before
 * it has; what comes beside a screen, as a table or a dialog, therefore has a group that no screen needs to be drawn.
 */
const pieces = [
  { name: 'start', tags: ['$initial' as const] },
  {
    name: 'shared-controls',
    test: /antd\/es\/(_util|alert|checkbox|form|grid|popconfirm|popover|radio)\//,
  },
  { name: 'shared-dialog', test: /antd\/es\/(drawer|modal|skeleton)\/|controls\/dialog/ },
  { name: 'shared-table', test: /antd\/es\/(dropdown|menu|pagination|table|tree)\// },
  { name: 'shared-access', test: /web\/src\/access\/|controls\/form/, minShareCount: 2 },
  // What reads a machine's line is large, and wanted at Intake and where an upgrade stands in words alone.
  { name: 'shared-line', test: /core\/src\/intake\// },
  {
    name: 'shared-job',
    test: /core\/src\/(diagnose|job|measure|wording)\/|web\/src\/(controls|job|pictures)\//,
    minShareCount: 3,
  },
  { name: 'shared', minShareCount: 2, entriesAware: true, entriesAwareMergeThreshold: 8000 },
].map((group, place, all) => ({ ...group, priority: all.length - place }));

/** Without the names of all that share it, which the tool puts behind the name. */
const chunkFileNames = ({ name }: { readonly name: string }) => `assets/${name.replace(/~.*/, '')}-[hash].js`;

/** A class is called by its sheet and its own name: sheets and tests can speak of it, and no two sheets bear one name. */
const generateScopedName = (local: string, file: string) => `${basename(file, '.module.css')}-${local}`;

export default defineConfig({
  plugins: [react(), serviceWorker],
  // The server puts the nonce of each answer here.
  html: { cspNonce: 'STYLE-NONCE' },
  resolve: { conditions: ['fairwatt-source', 'module', 'browser', 'development|production'] },
  css: { modules: { generateScopedName } },
  build: {
    target: 'es2023',
    chunkSizeWarningLimit: 1600,
    rolldownOptions: {
      input: { main: 'index.html' },
      output: { assetFileNames, chunkFileNames, codeSplitting: { groups: pieces } },
    },
  },
  worker: {
    format: 'es',
    rolldownOptions: { output: { assetFileNames } },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:4870' } },
});
