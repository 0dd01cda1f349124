import { parseArgs } from 'node:util';
import { read } from './read';
import { Unusable } from './unusable';

const USAGE = `retexa read FILE [--address URL]
  Reads a saved page, a PDF or a picture of a page, with no network. Writes one JSON object: source (CSL-JSON), origins
  and alternatives by field, and list when the page is a list of works.
`;

async function main(argv: string[]): Promise<number> {
  const [command, ...rest] = argv;
  if (command === undefined || command === '--help' || command === 'help') {
    process.stderr.write(USAGE);
    return command === undefined ? 2 : 0;
  }
  if (command !== 'read') throw new Unusable(`There is no command “${command}”.\n${USAGE}`);
  let given;
  try {
    given = parseArgs({ args: rest, allowPositionals: true, options: { address: { type: 'string' } } });
  } catch (error) {
    throw new Unusable(`${(error as Error).message}\n${USAGE}`);
  }
  const [file, ...more] = given.positionals;
  if (!file || more.length) throw new Unusable(`read takes one file.\n${USAGE}`);
  const result = await read(file, given.values.address);
  process.stdout.write(`${JSON.stringify(result, null, 2)}\n`);
  return 0;
}

main(process.argv.slice(2)).then(
  (code) => (process.exitCode = code),
  (error: unknown) => {
    process.stderr.write(
      error instanceof Unusable ? `${error.message}\n` : `retexa failed: ${String(error)}\n`,
    );
    process.exitCode = 2;
  },
);
