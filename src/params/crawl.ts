import type { ParamMatcher } from '@sveltejs/kit';
import { readCrawlName } from '$lib/shell/routes';

export const match: ParamMatcher = (text) => readCrawlName(text) !== null;
