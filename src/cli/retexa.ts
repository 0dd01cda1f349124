import './engine';
import { fileURLToPath } from 'node:url';
import { opened } from './compiled';

const { main } = opened(
  fileURLToPath(new URL('./commands.cjs', import.meta.url)),
) as typeof import('./commands');
process.exitCode = await main(process.argv.slice(2));
