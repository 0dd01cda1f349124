import type { CopyHead, ReadingPlace } from '$lib/server/copies';
import type { PassageItem, PassageLink } from '$lib/server/passages';
import type { Thread } from '$lib/server/replies';
import type { Section } from '$lib/server/projects';
import type { TaskItem } from '$lib/server/tasks';

/** A copy that is open, with what is beside it. */
export interface CopyOpen {
  copy: CopyHead;
  /** All copies of its source, the latest first. */
  copies: CopyHead[];
  passages: PassageItem[];
  tasks: TaskItem[];
  place: (ReadingPlace & { read: string }) | undefined;
  /** What was said to passages, by their ids. */
  threads: Record<string, Thread>;
  /** Tags passages have. */
  tags: string[];
  sections: Section[];
  /** What passages are linked with, by their ids. */
  links: Record<string, PassageLink[]>;
  /** Passages one can be linked with. */
  others: PassageItem[];
  source: { id: string; title: string; label: string };
}
