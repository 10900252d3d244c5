import { signedInAgain } from './signedOut.ts';

/** Asks the server; where the session has ended, once more as soon as somebody has signed in. Nothing else in the browser fetches. */
export async function overNetwork(url: string, init: RequestInit = {}): Promise<Response> {
  const response = await fetch(url, { ...init, credentials: 'same-origin' });
  if (response.status !== 401) return response;
  await signedInAgain();
  return overNetwork(url, init);
}
