/** What a backup is called, by the time it was made. */
export const nameNow = (): string =>
  `retexa-${new Date()
    .toISOString()
    .replace(/\.\d+Z$/, 'Z')
    .replace(/:/g, '-')}.tar`;

/** Whether a name is one of a backup, and nothing that leads elsewhere. */
export const isName = (name: string): boolean => /^retexa-\d{4}-\d\d-\d\dT\d\d-\d\d-\d\dZ\.tar$/.test(name);
