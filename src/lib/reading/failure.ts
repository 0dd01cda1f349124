/** A document that cannot be read, in words for the person. */
export class Unreadable extends Error {}
