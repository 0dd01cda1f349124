import type { Item, NameValue } from './item';
import type { Locale } from './locale';
import type { Node } from './pieces';

/** Where a cite stands among those before it. CSL 1.0.2, "Choose", `position`. */
export const FIRST = 0;
export const SUBSEQUENT = 1;
export const IBID = 2;
export const IBID_WITH_LOCATOR = 3;

/** A work in a citation. */
export interface Cite {
  id: string;
  locator?: string;
  label?: string;
  prefix?: string;
  suffix?: string;
  'suppress-author'?: boolean;
  'author-only'?: boolean;
}

/** How many names a list shows, and how far each given name is told; raised to tell works apart. */
export interface Levels {
  /** Least names shown of each list, in the order they print. */
  show?: (number | undefined)[];
  /** Of each list and name: 0 as the style has it, 1 with initials, 2 with the whole given name. */
  given?: (number[] | undefined)[];
}

/** How a list writes given names: as initials, and only where names are told apart. */
export interface GivenAs {
  initials: boolean;
  short: boolean;
}

/** How far the given name of a name of a list is told, by how the list writes given names. */
export type LevelOf = (name: NameValue, list: number, index: number, as: GivenAs) => number;

/** What stands in a style for all its parts. */
export interface Setting {
  locale: Locale;
  /** The language of works that tell none. */
  lang: string;
  abbreviation?: ((kind: string, value: string) => string | undefined) | undefined;
  /** The style prints the letter behind the year where it says. */
  ownYearSuffix: boolean;
  nearNoteDistance: number;
  /** Titles told in other languages stand in brackets behind the title, in the language of the list. */
  translations: boolean;
}

/** One printing of one work. */
export interface Scope {
  item: Item;
  setting: Setting;
  area: 'citation' | 'bibliography';
  cite: Cite | undefined;
  position: number;
  nearNote: boolean;
  firstNote: number | undefined;
  /** Its number in the list. */
  number: number | undefined;
  yearSuffix: string | undefined;
  /** How many conditions `disambiguate` are still met. */
  conditions: number;
  levels: Levels | undefined;
  /** How far a given name is told wherever it stands. */
  levelOf: LevelOf | undefined;
  /** Set while a key to sort by is made. */
  sorting: { min?: number; useFirst?: number; useLast?: boolean } | undefined;
  /** Variables that stood in for a missing name, and print no more. */
  spent: Set<string> | undefined;
  /** A variable was asked for; one of them had something. */
  called: boolean;
  found: boolean;
  suffixPrinted: boolean;
  /** Set while works are told apart: when they were looked at says nothing of them. */
  comparing: boolean;
  /** The first names that would print are left out. */
  withoutNames: boolean;
  /** The lists of names printed so far, as they were shown. */
  lists: NameList[];
  substituting: boolean;
}

/** A list of names that was printed. */
export interface NameList {
  names: NameValue[];
  shown: number;
  /** One for each `names` element, which is known by it. */
  as: GivenAs;
  lang: string;
}

/** A part of a style, compiled: what it prints of a work, or nothing. */
export type Part = (scope: Scope) => Node | undefined;

export function openScope(
  item: Item,
  setting: Setting,
  area: Scope['area'],
  rest: Partial<Scope> = {},
): Scope {
  return {
    item,
    setting,
    area,
    cite: undefined,
    position: FIRST,
    nearNote: false,
    firstNote: undefined,
    number: undefined,
    yearSuffix: undefined,
    conditions: 0,
    levels: undefined,
    levelOf: undefined,
    sorting: undefined,
    spent: undefined,
    called: false,
    found: false,
    suffixPrinted: false,
    comparing: false,
    withoutNames: false,
    lists: [],
    substituting: false,
    ...rest,
  };
}
