/** Changes that a person makes, sent to the server. */
import { say } from './say.svelte';
import { texts } from './texts';

/**
 * The JSON that a request is answered with; what went wrong is said to the person.
 * @param otherwise what is said where the server says nothing
 * @returns null when it was not done
 */
export async function answerOf<T>(asking: Promise<Response>, otherwise = texts.couldNotBeDone): Promise<T | null> {
  const response = await asking.catch(() => null);
  if (response?.ok) return (await response.json()) as T;
  const problem = response && ((await response.json().catch(() => null)) as { message?: string } | null);
  say(problem?.message ?? otherwise, true);
  return null;
}

/** Sends a change as JSON. @returns the answer, as {@link answerOf} */
export const send = <T>(path: string, method: 'POST' | 'PUT' | 'DELETE', body: object = {}): Promise<T | null> =>
  answerOf<T>(fetch(path, { method, body: JSON.stringify(body) }));
