/** Marks pages as those that matter most to a site. */
import { invalidateAll } from '$app/navigation';
import { say } from './say.svelte';
import { send } from './send';
import { texts } from './texts';

/** @returns whether it was done, which is said */
export async function markKeyPages(site: number, addresses: readonly string[], key: boolean): Promise<boolean> {
  if (!(await send(`/sites/${site}/key-pages`, 'POST', { addresses, key }))) return false;
  await invalidateAll();
  say(key ? texts.markedKey(addresses.length) : texts.unmarkedKey(addresses.length));
  return true;
}
