import { readFileSync } from 'node:fs';
import { Unusable } from './unusable';

/** The bytes of a file (`-` is standard input). Throws `Unusable` with words for the person. */
export function bytesOf(file: string): Uint8Array {
  try {
    return readFileSync(file === '-' ? 0 : file);
  } catch (error) {
    const { code, message } = error as NodeJS.ErrnoException;
    throw new Unusable(
      `${file}: ${code === 'ENOENT' ? 'there is no such file.' : code === 'EISDIR' ? 'this is a folder.' : message}`,
    );
  }
}
