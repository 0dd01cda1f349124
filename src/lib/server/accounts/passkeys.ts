import type {
  AuthenticationResponseJSON,
  PublicKeyCredentialCreationOptionsJSON,
  PublicKeyCredentialRequestOptionsJSON,
  RegistrationResponseJSON,
} from '@simplewebauthn/server';
import type { Knex } from 'knex';
import { newSecret } from '../access/secrets';
import { Refusal } from '../access/refusal';
import { noted } from '../audit';
import { now } from '../db/ids';
import type { Signed } from './asking';

/** It is many files, and opened by who has a passkey. */
const webAuthn = () => import('@simplewebauthn/server');

/** A passkey of somebody's, as it is listed. */
export interface PasskeyShown {
  id: string;
  name: string;
  made: string;
  used: string | null;
}

interface Row extends PasskeyShown {
  person_id: string;
  public_key: Buffer;
  counter: number;
  transports: string;
}

/** What was asked of a browser and is not answered yet: each is answered once, and forgotten after a while. */
const offers = new Map<string, { challenge: string; personId?: string; until: number }>();
/** How long an offer stands, in milliseconds. */
const STANDS = 5 * 60_000;
/** Most offers that stand at once; the oldest go, so that nobody fills the memory. */
const MOST_OFFERS = 2_000;

function offered(challenge: string, personId?: string): string {
  const at = Date.now();
  for (const [id, offer] of offers) if (offer.until < at || offers.size >= MOST_OFFERS) offers.delete(id);
  const id = newSecret();
  offers.set(id, { challenge, ...(personId ? { personId } : {}), until: at + STANDS });
  return id;
}

function taken(id: string, personId?: string): string | undefined {
  const offer = offers.get(id);
  offers.delete(id);
  return offer && offer.until >= Date.now() && offer.personId === personId ? offer.challenge : undefined;
}

/** What a passkey belongs to: the name of the host a browser is at (Web Authentication, 5.1.2: a domain, never a number). */
function partyOf(origin: string): string {
  const { hostname } = new URL(origin);
  if (/^[\d.]+$|^\[/.test(hostname))
    throw new Refusal(
      409,
      'A passkey belongs to a name and not to a number: open Retexa by its name, on this machine as localhost.',
    );
  return hostname;
}

/** Somebody's passkeys, the newest first. */
export const passkeysOf = async (db: Knex, personId: string): Promise<PasskeyShown[]> =>
  (await db('passkey')
    .where({ person_id: personId })
    .orderBy('made', 'desc')
    .select('id', 'name', 'made', 'used')) as PasskeyShown[];

/** Whether anybody has a passkey here. */
export const passkeysThere = async (db: Knex): Promise<boolean> => Boolean(await db('passkey').first('id'));

/** Asks a browser for a new passkey of who is signed in; what it answers goes to `confirmPasskey` with `offer`. */
export async function beginPasskey(
  db: Knex,
  who: Signed,
  origin: string,
): Promise<{ offer: string; options: PublicKeyCredentialCreationOptionsJSON }> {
  const { generateRegistrationOptions } = await webAuthn();
  const options = await generateRegistrationOptions({
    rpName: 'Retexa',
    rpID: partyOf(origin),
    userName: who.mail,
    userDisplayName: who.name,
    userID: new TextEncoder().encode(who.personId),
    excludeCredentials: (await passkeysOf(db, who.personId)).map(({ id }) => ({ id })),
    authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
  });
  return { offer: offered(options.challenge, who.personId), options };
}

/** Keeps the passkey a browser made. Refuses what was not asked for, is too old, or is not right. */
export async function confirmPasskey(
  db: Knex,
  who: Signed,
  { offer, answer, name }: { offer: string; answer: unknown; name: string },
  origin: string,
): Promise<void> {
  const expectedChallenge = taken(offer, who.personId);
  if (!expectedChallenge) throw new Refusal(409, 'That took too long. Begin again.');
  const { verifyRegistrationResponse } = await webAuthn();
  const verified = await verifyRegistrationResponse({
    response: answer as RegistrationResponseJSON,
    expectedChallenge,
    expectedOrigin: origin,
    expectedRPID: partyOf(origin),
  }).catch(() => undefined);
  if (!verified?.verified) throw new Refusal(422, 'The passkey that came is not right. Begin again.');
  const { id, publicKey, counter, transports = [] } = verified.registrationInfo.credential;
  await db.transaction(async (trx) => {
    if (await trx('passkey').where({ id }).first('id'))
      throw new Refusal(409, 'This passkey is here already.');
    await trx('passkey').insert({
      id,
      person_id: who.personId,
      name,
      public_key: Buffer.from(publicKey),
      counter,
      transports: JSON.stringify(transports),
      made: now(),
    });
    await noted(trx, { personId: who.personId, act: 'passkey added', words: name });
  });
}

/** Takes a passkey of one's own off: it opens nothing any more. */
export async function dropPasskey(db: Knex, who: Signed, id: string): Promise<void> {
  await db.transaction(async (trx) => {
    const own = { id, person_id: who.personId };
    const row = (await trx('passkey').where(own).first('name')) as { name: string } | undefined;
    if (!row) return;
    await trx('passkey').where(own).delete();
    await noted(trx, { personId: who.personId, act: 'passkey taken off', words: row.name });
  });
}

/** Asks a browser for any passkey it has for this server; what it answers goes to `signInByKey` with `offer`. */
export async function keyOffer(
  origin: string,
): Promise<{ offer: string; options: PublicKeyCredentialRequestOptionsJSON }> {
  const { generateAuthenticationOptions } = await webAuthn();
  const options = await generateAuthenticationOptions({
    rpID: partyOf(origin),
    userVerification: 'required',
  });
  return { offer: offered(options.challenge), options };
}

/** Whose passkey an answer proves; nothing where it is not right, was not asked for, or is nobody's here. */
export async function personOfKey(
  db: Knex,
  { offer, answer }: { offer: string; answer: unknown },
  origin: string,
): Promise<string | undefined> {
  const expectedChallenge = taken(offer);
  const response = answer as AuthenticationResponseJSON;
  if (!expectedChallenge || typeof response?.id !== 'string') return undefined;
  const row = (await db('passkey').where({ id: response.id }).first()) as Row | undefined;
  if (!row) return undefined;
  const { verifyAuthenticationResponse } = await webAuthn();
  const verified = await verifyAuthenticationResponse({
    response,
    expectedChallenge,
    expectedOrigin: origin,
    expectedRPID: partyOf(origin),
    credential: {
      id: row.id,
      publicKey: new Uint8Array(row.public_key),
      counter: row.counter,
      transports: JSON.parse(row.transports) as string[],
    },
  }).catch(() => undefined);
  if (!verified?.verified) return undefined;
  await db('passkey')
    .where({ id: row.id })
    .update({ counter: verified.authenticationInfo.newCounter, used: now() });
  return row.person_id;
}
