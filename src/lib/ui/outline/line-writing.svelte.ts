import { isOwn, keyOf } from '$lib/core/outline';
import type { OutlineItem, OutlineSection } from '$lib/server/projects';
import { drafts } from '../frame/drafts';
import { renew, renewed } from '../frame/live.svelte';
import type { itemsOf } from './items.svelte';
import { spotAfter, type Line } from './lines';
import { outlining, type folding } from './tree.svelte';

/** What is being written: a sentence that is there, a new one below a line, or the name of a section. */
export type Open =
  /** `began` is what stood there when one began, `theirs` what somebody wrote there meanwhile. */
  | { what: 'words'; key: string; began: string; theirs?: string }
  | { what: 'new'; key: string }
  | { what: 'rename'; key: string }
  | { what: 'section'; key: string; parentId: string | null; before: string | null }
  /** A section that begins with an item that is there. */
  | { what: 'split'; key: string };

/** A line to write in, below another. */
export interface Blank {
  kind: 'blank';
  key: string;
  depth: number;
}

interface Around {
  projectId: string;
  edits: () => boolean;
  lines: () => Line[];
  sections: () => OutlineSection[];
  items: () => OutlineItem[];
  acts: ReturnType<typeof itemsOf>;
  fold: ReturnType<typeof folding>;
  /** The line one is at. */
  current: () => Line | undefined;
  /** Goes to a line, once something is done. */
  focusOn: (key: string | undefined, done?: Promise<unknown>) => Promise<void>;
  /** Makes a line the current one, and shows the blank below it where that is asked for. */
  show: (key: string, blank: boolean) => Promise<void>;
}

/** The writing of lines in an outline: one at a time; what is typed and not kept is there again when one comes back. */
export function lineWriting(around: Around) {
  const { projectId, edits, lines, sections, items, acts, fold, current, focusOn, show } = around;
  const DRAFT = `outline ${projectId}`;
  const left = drafts.find<{ open: Open; words: string }>(DRAFT);
  let open = $state.raw<Open | undefined>(left && edits() ? placed(left.open) : undefined);
  let typed = $state.raw(left?.words);

  /** Where one goes on writing; what stood there may be gone, and what was typed is not lost for it. */
  function placed(was: Open): Open {
    const there = was.what === 'section' || lines().some((line) => line.key === was.key);
    return there ? was : { what: 'new', key: lines()[0]?.key ?? '' };
  }
  function close(): void {
    open = typed = undefined;
    drafts.drop(DRAFT);
  }
  const sectionAt = (line: Line | undefined) =>
    line && sections().find((s) => s.id === (line.kind === 'section' ? line.key : line.item.sectionId));
  const wordsOf = (key: string): string => {
    const line = lines().find((l) => l.key === key);
    return line?.kind === 'section' ? line.section.name : (line?.item.words ?? '');
  };
  const openWords = (key: string) => {
    open = { what: 'words', key, began: wordsOf(key) };
  };
  function below(line: Line | undefined): void {
    if (!line) return;
    if (line.kind === 'section') fold.fold(line.key, false);
    open = { what: 'new', key: line.key };
  }
  /** Goes on writing below a line that has just come. */
  async function goOnBelow(key: string): Promise<void> {
    await renewed();
    await show(key, false);
    below(lines().find((line) => line.key === key));
    await show(key, true);
  }
  /** Goes on writing a line that has just become another. */
  async function goOnAt(key: string): Promise<void> {
    await renewed();
    await show(key, false);
    openWords(key);
  }
  /** What could not be kept is there to be written on. */
  function again(what: Open, words: string): void {
    [open, typed] = [placed(what), words];
  }

  async function keepName(now: Extract<Open, { what: 'section' | 'rename' }>, words: string, then: unknown) {
    const name = words.trim().slice(0, 200);
    if (!name || (now.what === 'rename' && name === wordsOf(now.key))) return focusOn(now.key);
    const id =
      now.what === 'section'
        ? await outlining.add(projectId, now.parentId, name, now.before)
        : (await outlining.rename(now.key, name)) && now.key;
    if (!id) return again(now, words);
    return now.what === 'section' && then === 'below' ? goOnBelow(id) : focusOn(id, renewed());
  }
  /** Keeps what was written; `then` is where one goes on. */
  async function keep(words: string, then: 'stay' | 'below' | { cut: number }): Promise<void> {
    const now = open;
    if (!now) return;
    close();
    if (now.what === 'section' || now.what === 'rename') return keepName(now, words, then);
    const line = lines().find((l) => l.key === now.key);
    const trimmed = words.trim();
    if (!line) return again(now, words);
    if (now.what === 'split') {
      if (!trimmed || line.kind !== 'item') return focusOn(now.key);
      const { sectionId, ref } = line.item;
      const made = await outlining.split(sectionId, ref, trimmed.slice(0, 200));
      if (!made) return again(now, words);
      return focusOn(keyOf({ sectionId: made.back.section, ref }), renewed());
    }
    if (now.what === 'new') {
      if (!trimmed) return focusOn(now.key);
      const to = spotAfter(line, items());
      const ref = await acts.begin(trimmed, to);
      if (!ref) return again(now, words);
      const key = keyOf({ sectionId: to.sectionId, ref });
      return then === 'below' ? goOnBelow(key) : focusOn(key, renewed());
    }
    if (line.kind !== 'item') return;
    // What somebody wrote meanwhile is not written over unseen.
    const item = { ...line.item, words: now.began };
    const clash = async () => {
      await renew('projects');
      const theirs = wordsOf(now.key);
      again({ what: 'words', key: now.key, began: theirs, theirs }, words);
    };
    if (typeof then === 'object') {
      const ref = await acts.split(item, words, then.cut, spotAfter(line, items()).before);
      return ref ? goOnAt(keyOf({ sectionId: item.sectionId, ref })) : clash();
    }
    if (trimmed !== item.words && !(await acts.write(item, trimmed, item.kind as 'sentence'))) return clash();
    return then === 'below' ? goOnBelow(line.key) : focusOn(line.key, renewed());
  }

  return {
    get open() {
      return open;
    },
    get typed() {
      return typed;
    },
    wordsOf,
    below,
    keep,
    /** Whether what stands in a line is being written otherwise. */
    at: (key: string): boolean => open?.key === key && (open.what === 'words' || open.what === 'rename'),
    /** Lines that are seen, with the one that is being written below one of them. */
    among(seen: Line[]): (Line | Blank)[] {
      if (!open || open.what === 'words' || open.what === 'rename') return seen;
      const { key, what } = open;
      let i = seen.findIndex((line) => line.key === key);
      const depth = seen[i]?.depth ?? 0;
      if (what === 'section' && seen[i])
        while (seen[i + 1] && (seen[i + 1]!.depth > depth || seen[i + 1]!.kind === 'item')) i++;
      if (what === 'split') i--;
      const under = what === 'new' && seen[i]?.kind === 'section' ? 1 : 0;
      return [
        ...seen.slice(0, i + 1),
        { kind: 'blank', key: 'blank', depth: depth + under },
        ...seen.slice(i + 1),
      ];
    },
    /** A new section beside the one the current line is in. */
    newSection(): void {
      const section = sectionAt(current());
      const beside = sections().filter((s) => s.parentId === (section?.parentId ?? null));
      const next = section && beside[beside.findIndex((s) => s.id === section.id) + 1];
      const after = section?.id ?? lines().at(-1)?.key ?? '';
      open = { what: 'section', key: after, parentId: section?.parentId ?? null, before: next?.id ?? null };
    },
    /** A section that begins with the current line. */
    split(): void {
      const line = current();
      if (line) open = { what: 'split', key: line.key };
    },
    /** Writes the current line otherwise. */
    change(): void {
      const line = current();
      if (!edits() || !line) return;
      if (line.kind === 'section') open = { what: 'rename', key: line.key };
      else if (isOwn(line.item.kind)) openWords(line.key);
    },
    type: (words: string) => drafts.keep(DRAFT, { open, words }),
    leave(): void {
      const key = open?.key;
      close();
      void focusOn(key);
    },
    /** Joins a sentence to the one before it, and goes on writing there. */
    async join(words: string): Promise<void> {
      const line = lines().find((l) => l.key === open?.key);
      const was = open;
      if (was?.what !== 'words' || line?.kind !== 'item') return;
      if (words.trim() !== line.item.words) await keep(words, 'stay');
      // It could not be kept, and is being written on.
      if (open && open !== was) return;
      const now = items().find((item) => keyOf(item) === line.key) ?? line.item;
      const here = items().filter((item) => item.sectionId === now.sectionId);
      const before = here[here.findIndex((item) => item.ref === now.ref) - 1];
      const made = acts.join(now, items());
      if (!made || !before) return;
      close();
      await made;
      await goOnAt(keyOf(before));
    },
  };
}
