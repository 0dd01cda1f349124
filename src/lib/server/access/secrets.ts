import { createHash, randomBytes } from 'node:crypto';

/** A new secret that nobody guesses: 256 random bits, in letters that stand in an address (base64url, RFC 4648, 5). */
export const newSecret = (): string => randomBytes(32).toString('base64url');

/**
 * What is kept of a secret. One that is random as a whole needs no slow hash: its SHA-256 lets nobody back to it, and is looked up
 * by an index.
 */
export const hashOf = (secret: string): string => createHash('sha256').update(secret).digest('hex');

/** Whether a time of expiry has come. */
export const isOver = (expires: string | null, at = new Date()): boolean =>
  expires !== null && expires <= at.toISOString();

/** The time in so many days, as it is kept. */
export const inDays = (days: number): string => new Date(Date.now() + days * 86_400_000).toISOString();
