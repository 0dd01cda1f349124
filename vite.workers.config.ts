import { builtinModules } from 'node:module';
import { readFileSync } from 'node:fs';
import { defineConfig } from 'vite';

const { dependencies } = JSON.parse(readFileSync('package.json', 'utf8')) as {
  dependencies: Record<string, string>;
};
/** Libraries of many small files, which take longer to open than to run: they are bundled. */
const BUNDLED = ['zod', 'entities', 'any-ascii', 'saxes', 'xmlchars'];
const external = [
  ...Object.keys(dependencies).filter((name) => !BUNDLED.includes(name)),
  ...builtinModules,
  ...builtinModules.map((m) => `node:${m}`),
];

/** Builds what runs outside the application bundle: the server's worker threads, the processes that read documents, and the command line. */
export default defineConfig({
  publicDir: false,
  ssr: { noExternal: BUNDLED },
  build: {
    ssr: true,
    outDir: 'build',
    emptyOutDir: false,
    target: 'node20',
    rollupOptions: {
      external: (id) => external.some((name) => id === name || id.startsWith(`${name}/`)),
      input: {
        citing: 'src/lib/server/workers/citing.worker.ts',
        borrowed: 'src/lib/server/workers/borrowed.worker.ts',
        doubles: 'src/lib/server/workers/doubles.worker.ts',
        gathering: 'src/lib/server/workers/gathering.worker.ts',
        backup: 'src/lib/server/backup/command.ts',
        reading: 'src/lib/reading/apart/child.ts',
        retexa: 'src/cli/retexa.ts',
      },
      output: {
        entryFileNames: ({ name }) => (name === 'retexa' ? 'cli/retexa.js' : `workers/${name}.js`),
        chunkFileNames: 'workers/shared/[name]-[hash].js',
        banner: ({ name }) => (name === 'retexa' ? '#!/usr/bin/env node' : ''),
      },
    },
  },
});
