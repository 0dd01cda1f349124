import type { Preset } from '$lib/server/presets';
import type { Project, Section } from '$lib/server/projects';
import type { Into } from '$lib/server/capture';
import { call } from '../frame/client';

/** What can be chosen for a capture to go into and to go with it. */
export interface Destinations {
  projects: Project[];
  sections: Section[];
  presets: Preset[];
  tags: string[];
}

/** Where captures go: kept from one capture to the next, but for the note, which belongs to one. */
export interface Going {
  /** A project's id; empty for the library alone; `undefined` for the project that is chosen above. */
  projectId: string | undefined;
  sectionId: string;
  tags: string[];
  note: string;
  presetId: string;
}

export const nowhere = (): Going => ({
  projectId: undefined,
  sectionId: '',
  tags: [],
  note: '',
  presetId: '',
});

/** Where the captures of the shell's field go. */
export const going = $state<Going>(nowhere());

/** Asks what can be chosen. */
export const destinations = (): Promise<Destinations> => call<Destinations>('GET', '/api/into');

/** What goes with a capture, as a request says it. */
export function intoOf(given: Going): Into {
  return {
    ...(given.projectId ? { projectId: given.projectId } : {}),
    ...(given.sectionId ? { sectionId: given.sectionId } : {}),
    ...(given.tags.length ? { tags: [...given.tags] } : {}),
    ...(given.note.trim() ? { note: given.note.trim() } : {}),
    ...(given.presetId ? { presetId: given.presetId } : {}),
  };
}

/** Whether anything but the project above was chosen. */
export const chosen = (given: Going): boolean => Object.keys(intoOf(given)).length > 0;
