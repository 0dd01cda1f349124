import { hash, verify } from '@node-rs/argon2';
import type { ZxcvbnFactory } from '@zxcvbn-ts/core';

/** The shortest pass phrase that is taken, in characters, and the longest. */
export const SHORTEST = 12;
export const LONGEST = 200;

/** Argon2id, as the library numbers it. */
const ARGON2ID = 2;

/** Argon2id with 19 MiB, two passes and one lane: what the OWASP Password Storage Cheat Sheet names as the least. */
const COST = { algorithm: ARGON2ID, memoryCost: 19_456, timeCost: 2, parallelism: 1 };

let guesses: Promise<ZxcvbnFactory> | undefined;

/** What guesses as somebody would who has the lists of pass phrases that were taken: opened by the first that is chosen. */
async function openGuesses(): Promise<ZxcvbnFactory> {
  const [{ ZxcvbnFactory }, { adjacencyGraphs, dictionary }] = await Promise.all([
    import('@zxcvbn-ts/core'),
    import('@zxcvbn-ts/language-common'),
  ]);
  return new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });
}

/** The least that is taken of what it takes to guess a pass phrase, as a score of 0 to 4: 3 is more than a hundred million guesses. */
const SAFE = 3;

/** What is wrong with a pass phrase, in words; `about` is what others know of the person, and no secret. */
export async function phraseProblem(phrase: string, about: readonly string[]): Promise<string | undefined> {
  if ([...phrase].length < SHORTEST)
    return `A pass phrase has at least ${SHORTEST} characters; four words that do not belong together are easy to keep in mind.`;
  if ([...phrase].length > LONGEST) return `A pass phrase has at most ${LONGEST} characters.`;
  const guessing = await (guesses ??= openGuesses());
  const known = about.flatMap((words) => [words, ...words.split(/[\s@.]+/)]).filter((w) => w.length > 2);
  if (guessing.check(phrase, [...known, 'retexa']).score < SAFE)
    return 'This pass phrase is among the first that somebody would try: it is common, or made of what is known of you, or of keys in a row.';
  return undefined;
}

/** What is kept of a pass phrase. Computed beside the requests. */
export const phraseHash = (phrase: string): Promise<string> => hash(phrase.normalize('NFC'), COST);

let nobodys: Promise<string> | undefined;

/** Whether a pass phrase is the one a hash was made of. Where there is no hash it takes as long, so that time tells nobody who has an account. */
export async function isPhrase(kept: string | undefined, phrase: string): Promise<boolean> {
  nobodys ??= phraseHash('nobody has this pass phrase');
  const right = await verify(kept ?? (await nobodys), phrase.slice(0, LONGEST).normalize('NFC'));
  return right && kept !== undefined;
}
