import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';
import { BUNDLED } from './vite.workers.config.ts';

export default defineConfig({
  plugins: [tailwindcss(), sveltekit()],
  ssr: {
    noExternal: [
      // Its entries are folders, which Node does not import.
      /^@atlaskit\//,
      // Libraries of many small files, which take longer to open than to run.
      ...BUNDLED,
      'date-fns',
      'uuid',
    ],
  },
  build: {
    chunkSizeWarningLimit: 1200,
  },
  test: {
    projects: [
      {
        extends: true,
        test: {
          name: 'unit',
          setupFiles: ['tests/seed.ts'],
          include: [
            'src/**/*.test.ts',
            'stand-ins/**/*.test.ts',
            'tests/corpus/**/*.test.ts',
            'tests/drafts/**/*.test.ts',
          ],
          environment: 'node',
          // Files share what they import, which takes longer than most of them; what they open they close.
          isolate: false,
          testTimeout: 120_000,
          hookTimeout: 120_000,
        },
      },
      {
        extends: true,
        test: {
          name: 'outside',
          include: ['tests/outside/**/*.test.ts', 'tests/hostile/**/*.test.ts'],
          environment: 'node',
          testTimeout: 120_000,
          hookTimeout: 120_000,
        },
      },
      {
        extends: true,
        test: {
          name: 'browser',
          include: ['tests/browser/**/*.test.ts'],
          environment: 'node',
          testTimeout: 300_000,
          hookTimeout: 120_000,
          // Each file has a server, a library and a browser of its own, which wait for one another more than they work.
          maxWorkers: 2,
        },
      },
    ],
  },
});
