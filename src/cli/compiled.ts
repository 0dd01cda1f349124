import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import Module, { createRequire } from 'node:module';
import { dirname } from 'node:path';
import { Script } from 'node:vm';

/**
 * Commands are opened with what the engine makes of their code before it can run, kept beside it: one that runs for half a
 * second would spend a good part of it on that. An engine of another version or with other flags takes nothing from there
 * and makes it anew.
 */
const scripts = new Map<string, Script>();
const kept = (file: string) => `${file}.code`;

interface Opening {
  exports: unknown;
}
type Open = (module: Opening, file: string) => void;

// Node 22 can do this by itself (`module.enableCompileCache`).
const { _extensions: openers } = Module as unknown as { _extensions: Record<string, Open> };

function openKept(module: Opening, file: string): void {
  const cachedData = existsSync(kept(file)) ? readFileSync(kept(file)) : undefined;
  const script = new Script(Module.wrap(readFileSync(file, 'utf8')), {
    filename: file,
    ...(cachedData ? { cachedData } : {}),
  });
  scripts.set(file, script);
  const run = script.runInThisContext() as (...given: unknown[]) => void;
  run.call(module.exports, module.exports, createRequire(file), module, file, dirname(file));
}

/** What a file of commands exports. */
export function opened(file: string): unknown {
  const folder = dirname(file);
  openers['.cjs'] = (module, of) =>
    of.startsWith(folder) ? openKept(module, of) : openers['.js']!(module, of);
  return createRequire(file)(file);
}

/** Keeps what the engine has made so far of all that was opened. */
export function keepCompiled(): void {
  for (const [file, script] of scripts) writeFileSync(kept(file), script.createCachedData());
}
