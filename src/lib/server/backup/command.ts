/** The command that makes, checks and restores backups; the server runs it too, beside itself. */
import { constants, setPriority } from 'node:os';
import { resolve } from 'node:path';
import { config } from '../config';
import { text } from 'node:stream/consumers';
import { documentsOf, makeBag, openBag, problemsOf, restoreBag } from './archive';
import { nameNow } from './names';
import { BackupProblem } from './problem';

const USE = `npm run backup                        makes a backup in ${config.backupFolder}
npm run backup -- make FILE.tar       makes one there
npm run backup -- check FILE.tar      says whether it is whole
npm run backup -- restore FILE.tar [--replace]
                                      restores it into ${config.dataFolder}; the server must not be running`;

async function run([act = 'make', file, ...flags]: string[]): Promise<number> {
  const place = file && resolve(file);
  let last = -1;
  const progress = (done: number, total: number) => {
    const share = total ? Math.floor((100 * done) / total) : 100;
    // A line for who reads along, such as the server.
    if (share !== last && process.env.RETEXA_PROGRESS) console.log(`progress ${share}`);
    last = share;
  };
  if (act === 'make') {
    // Those who work go first.
    setPriority(constants.priority.PRIORITY_LOW);
    const into = place ?? resolve(config.backupFolder, nameNow());
    const { bytes, damaged } = await makeBag(config.dataFolder, into, progress);
    console.log(`made ${into}, ${Math.ceil(bytes / 1e6)} MB`);
    for (const sha256 of damaged)
      console.error(
        `A document in the data folder is damaged, and is so in the backup: files/${sha256.slice(0, 2)}/${sha256}`,
      );
    return damaged.length ? 1 : 0;
  }
  if (act === 'check' && place) {
    const problems = await problemsOf(place, progress);
    for (const problem of problems) console.error(problem);
    if (!problems.length) console.log('The backup is whole.');
    return problems.length ? 1 : 0;
  }
  if (act === 'restore' && place) {
    const { files, before } = await restoreBag(place, config.dataFolder, {
      replace: flags.includes('--replace'),
      progress,
    });
    console.log(`restored into ${config.dataFolder}, ${files} documents added`);
    if (before) console.log(`what was there is kept as ${before}`);
    return 0;
  }
  // What the server asks for: a database to read, and documents whose SHA-256 are told.
  if (act === 'open' && place && flags[0]) {
    setPriority(constants.priority.PRIORITY_LOW);
    const made = await openBag(place, resolve(flags[0]), progress);
    if (made) console.log(`made ${made}`);
    return 0;
  }
  if (act === 'documents' && place) {
    setPriority(constants.priority.PRIORITY_LOW);
    const asked = new Set((await text(process.stdin)).split('\n').filter(Boolean));
    console.log(`documents ${await documentsOf(place, config.dataFolder, asked, progress)}`);
    return 0;
  }
  console.error(USE);
  return 2;
}

run(process.argv.slice(2)).then(
  (code) => process.exit(code),
  (error: unknown) => {
    console.error(error instanceof BackupProblem ? error.message : error);
    process.exit(1);
  },
);
