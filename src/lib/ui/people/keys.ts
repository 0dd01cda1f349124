import { ApiError } from '../frame/client';

/** Asks the browser for a passkey; what goes wrong there is said in words for the person. */
export async function keyAnswer<T>(ask: () => Promise<T>): Promise<T> {
  try {
    return await ask();
  } catch (error) {
    const name = error instanceof Error ? error.name : '';
    throw new ApiError(
      0,
      name === 'InvalidStateError'
        ? 'This device has a passkey for your account already.'
        : name === 'NotAllowedError' || name === 'AbortError'
          ? 'No passkey was given. Try again, or use your pass phrase.'
          : 'This browser or this address can give no passkey. Use your pass phrase.',
    );
  }
}
