import { builtinModules } from 'node:module';
import { readFileSync } from 'node:fs';
import { defineConfig } from 'vite';

const { dependencies } = JSON.parse(readFileSync('package.json', 'utf8')) as {
  dependencies: Record<string, string>;
};
const external = [...Object.keys(dependencies), ...builtinModules, ...builtinModules.map((m) => `node:${m}`)];

/** Builds the server's worker threads, which run outside the application bundle. */
export default defineConfig({
  publicDir: false,
  build: {
    ssr: true,
    outDir: 'build/workers',
    emptyOutDir: true,
    target: 'node20',
    rollupOptions: {
      external: (id) => external.some((name) => id === name || id.startsWith(`${name}/`)),
      input: {
        citing: 'src/lib/server/workers/citing.worker.ts',
        reading: 'src/lib/server/workers/reading.worker.ts',
      },
      output: { entryFileNames: '[name].js', chunkFileNames: 'shared/[name]-[hash].js' },
    },
  },
});
