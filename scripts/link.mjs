/** Makes the built command line runnable as `npx retexa` in this checkout. */
import { chmodSync, existsSync, rmSync, symlinkSync } from 'node:fs';

const built = 'build/cli/retexa.js';
const link = 'node_modules/.bin/retexa';
chmodSync(built, 0o755);
if (existsSync('node_modules/.bin')) {
  rmSync(link, { force: true });
  symlinkSync('../../build/cli/retexa.js', link);
}
