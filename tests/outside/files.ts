import { existsSync } from 'node:fs';
import { join } from 'node:path';

/** A file or folder the test set-up took out of Debian's packages. */
export function outsideFile(name: string): string {
  const path = join('.cache', 'outside', name);
  if (!existsSync(path)) throw new Error(`${path} is not here; npm test fetches it, on Debian as root.`);
  return path;
}
