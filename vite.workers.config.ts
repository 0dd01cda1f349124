import { builtinModules } from 'node:module';
import { readFileSync } from 'node:fs';
import { defineConfig } from 'vite';

const { dependencies } = JSON.parse(readFileSync('package.json', 'utf8')) as {
  dependencies: Record<string, string>;
};
/** Libraries of many small files, which take longer to open than to run: they are bundled, in the application too. */
export const BUNDLED = ['zod', 'entities', 'any-ascii', 'saxes', 'xmlchars'];
/** Those the commands cannot load otherwise: they are written as modules of the newer kind, and commands as the older. */
const OF_COMMANDS = ['p-queue', 'eventemitter3', 'p-timeout'];

const WORKERS = {
  citing: 'src/lib/server/workers/citing.worker.ts',
  borrowed: 'src/lib/server/workers/borrowed.worker.ts',
  doubles: 'src/lib/server/workers/doubles.worker.ts',
  gathering: 'src/lib/server/workers/gathering.worker.ts',
  backup: 'src/lib/server/backup/command.ts',
  reading: 'src/lib/reading/apart/child.ts',
  retexa: 'src/cli/retexa.ts',
};

/**
 * Builds what runs outside the application bundle: the server's worker threads, the processes that read documents and what
 * starts the command line. With `--mode commands` its commands, by themselves, so that they load no more than they need.
 */
export default defineConfig(({ mode }) => {
  const commands = mode === 'commands';
  const bundled = commands ? [...BUNDLED, ...OF_COMMANDS] : BUNDLED;
  const external = [
    ...Object.keys(dependencies).filter((name) => !bundled.includes(name)),
    ...builtinModules,
    ...builtinModules.map((m) => `node:${m}`),
  ];
  return {
    publicDir: false,
    ssr: { noExternal: bundled },
    build: {
      ssr: true,
      outDir: 'build',
      emptyOutDir: false,
      target: 'node20',
      rollupOptions: {
        external: (id) => external.some((name) => id === name || id.startsWith(`${name}/`)),
        input: commands ? { commands: 'src/cli/commands.ts' } : WORKERS,
        output: commands
          ? {
              format: 'cjs',
              entryFileNames: 'cli/[name].cjs',
              chunkFileNames: 'cli/shared/[name]-[hash].cjs',
            }
          : {
              entryFileNames: ({ name }) => (name === 'retexa' ? 'cli/retexa.js' : `workers/${name}.js`),
              chunkFileNames: 'workers/shared/[name]-[hash].js',
              banner: ({ name }) => (name === 'retexa' ? '#!/usr/bin/env node' : ''),
            },
      },
    },
  };
});
