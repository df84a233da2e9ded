import type { ParamMatcher } from '@sveltejs/kit';

export const match: ParamMatcher = (text) => /^[1-9]\d{0,14}$/.test(text);
