import { tellingsOf, tells, type Node, type Registry } from '../csl';
import { nameText, samePerson, shortName } from '../source';
import type { Run } from './runs';

/** What tells a work apart from others that would be cited in the same words. CSL 1.0.2, "Disambiguation". */
export interface ToldWork {
  id: string;
  /** Its citation as it would print with nothing to tell it apart, and as it prints: alone, as a later mention where those print otherwise. */
  alone: Run[];
  now: Run[];
  /** How many of its names are shown, where fewer would be otherwise. */
  names?: number;
  /**
   * Whose given names are told further; of people whose names would look the same, some and how many there are. One of
   * them may be the same person spelled otherwise: `perhaps` is the name to look for.
   */
  given: { name: string; others: string[]; many: number; perhaps?: string }[];
  /** A branch of the style for works that print alike is taken. */
  branch: boolean;
  /** The letter behind its year. */
  letter?: string;
  /** How many others are cited in the same words all the same. */
  still: number;
}

/** Works told apart in a style. */
export interface ToldList {
  /** Whether the style tells any apart. */
  tells: boolean;
  /** Works are shown as later mentions, which the style prints otherwise than first ones. */
  later: boolean;
  /** How the style has given names told, where it does. */
  givenRule?: string;
  /** Those that would be cited in the same words, group by group, in the order of the list. */
  groups: ToldWork[][];
}

/** What tells the works of a registry apart. */
export function toldList(registry: Registry, toRuns: (nodes: Node[], id: string) => Run[]): ToldList {
  const { style } = registry;
  const groups = tellingsOf(registry).map((group) =>
    group.map(({ entry, alone, now, names, given, branch, letter, still }) => {
      const { id } = entry.item;
      return {
        id,
        alone: toRuns(alone, id),
        now: toRuns(now, id),
        ...(names === undefined ? {} : { names }),
        given: given.map(({ name, others, many }) => ({
          name: nameText(name),
          others: others.map(nameText),
          many,
          ...(others.some((other) => samePerson(name, other)) ? { perhaps: shortName(name) } : {}),
        })),
        branch,
        ...(letter === undefined ? {} : { letter }),
        still,
      };
    }),
  );
  return {
    tells: tells(style),
    later: style.asksPosition,
    ...(style.addGiven ? { givenRule: style.addGiven } : {}),
    groups,
  };
}
