import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { config } from '../config';
import { BackupProblem } from './problem';

/** Runs the backup command in a process of its own, and gives what it said; a BackupProblem has its words. */
export function beside(
  given: string[],
  { share, input }: { share: (n: number) => void; input?: string },
): Promise<string> {
  const child = spawn(process.execPath, [join(config.buildFolder, 'workers', 'backup.js'), ...given], {
    env: { ...process.env, RETEXA_PROGRESS: '1' },
    stdio: ['pipe', 'pipe', 'pipe'],
  });
  let [said, wrong] = ['', ''];
  child.stdout.setEncoding('utf8').on('data', (text: string) => {
    const last = [...text.matchAll(/^progress (\d+)$/gm)].at(-1)?.[1];
    if (last) share(Number(last));
    said = (said + text).slice(-2_000);
  });
  child.stderr.setEncoding('utf8').on('data', (text: string) => (wrong = (wrong + text).slice(-2_000)));
  // It may end before it has read what it is told; its own words say why.
  child.stdin.on('error', () => undefined);
  child.stdin.end(input ?? '');
  return new Promise((resolve, reject) => {
    child.on('error', reject);
    child.on('close', (code) =>
      code === 0 ? resolve(said) : reject(new BackupProblem(wrong.trim() || `it ended with ${code}`)),
    );
  });
}
