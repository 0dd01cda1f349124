/** What was given cannot be used; the words are for the person, the exit is 2. */
export class Unusable extends Error {}
