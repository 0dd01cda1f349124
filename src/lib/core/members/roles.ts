/** What somebody is in a library, from who may most to who may least. */
export const ROLES = ['owner', 'editor', 'annotator', 'reader'] as const;
export type Role = (typeof ROLES)[number];

/**
 * What an act asks of who does it: to lead a library (who is in it, what is handed out), to edit what is in it, to add passages,
 * notes and tasks of one's own, or only to be in it (how far one has read, and what else is nobody's but one's own).
 */
export const RIGHTS = ['lead', 'edit', 'annotate', 'own'] as const;
export type Right = (typeof RIGHTS)[number];

const ALLOWED: Record<Right, readonly Role[]> = {
  lead: ['owner'],
  edit: ['owner', 'editor'],
  annotate: ['owner', 'editor', 'annotator'],
  own: ROLES,
};

/** Whether a role has a right. */
export const may = (role: Role, right: Right): boolean => ALLOWED[right].includes(role);

/** The role that may less of two: what a key cut from somebody's own opens is never more than they may themselves. */
export const lesser = (one: Role, other: Role): Role =>
  ROLES.indexOf(one) > ROLES.indexOf(other) ? one : other;

/** What each role may, in words for who chooses one. */
export const ROLE_WORDS: Record<Role, { name: string; may: string }> = {
  owner: { name: 'Owner', may: 'everything, and says who is in the library' },
  editor: { name: 'Editor', may: 'captures, changes records, and writes' },
  annotator: { name: 'Annotator', may: 'reads, and adds passages and notes' },
  reader: { name: 'Reader', may: 'reads what is for the library' },
};

/** Roles somebody can be invited as: a library has one owner at first, and the owner makes others. */
export const INVITED_AS = ['editor', 'annotator', 'reader'] as const satisfies readonly Role[];
