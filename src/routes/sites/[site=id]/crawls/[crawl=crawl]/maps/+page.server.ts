import { listScreen } from '../../../../../screen';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
  const { list } = await listScreen(event);
  return { list };
};
