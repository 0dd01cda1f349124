import { Secret, TOTP } from 'otpauth';

/** Seconds a code is good for, and its digits: what RFC 6238 and its apps go by. */
const PERIOD = 30;

const codesOf = (secret: string, mail: string) =>
  new TOTP({ issuer: 'Retexa', label: mail, secret: Secret.fromBase32(secret), period: PERIOD, digits: 6 });

/** A new secret for time-based codes, in base32. */
export const newCodeSecret = (): string => new Secret({ size: 20 }).base32;

/** The address an app takes the secret from. */
export const codeAddress = (secret: string, mail: string): string => codesOf(secret, mail).toString();

/**
 * The step of time a code belongs to (RFC 6238, 4.2), where it is right now or one step away (5.2); nothing where it is wrong. A
 * step is taken once: whoever keeps it refuses those up to it.
 */
export function stepOfCode(secret: string, code: string, at = Date.now()): number | undefined {
  const away = codesOf(secret, 'x').validate({ token: code.replace(/\s/g, ''), timestamp: at, window: 1 });
  return away === null ? undefined : Math.floor(at / 1_000 / PERIOD) + away;
}
