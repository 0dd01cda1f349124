/** Prints, in milliseconds, how long citeproc driven directly takes for the items on standard input, in APA. For the bench. */
import { readFileSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import CSL from 'citeproc';
import { locale, style } from '../tests/outside/catalogue';

const items = new Map((JSON.parse(readFileSync(0, 'utf8')) as { id: string }[]).map((i) => [i.id, i]));
const [apa, english] = [style('apa'), locale('en-US')];
const sys = { retrieveLocale: () => english, retrieveItem: (id: string) => items.get(id) };
const [first] = items.keys();
const warm = new CSL.Engine(sys, apa, 'en-US', true);
warm.updateItems([first!]);
warm.makeBibliography();
const engine = new CSL.Engine(sys, apa, 'en-US', true);
const start = performance.now();
engine.updateItems([...items.keys()]);
engine.makeBibliography();
process.stdout.write(String(performance.now() - start));
