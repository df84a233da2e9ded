/**
 * Zod as the core uses it: the policy of the application forbids code that is made of texts, so schemas are not
 * compiled, nor is it tried.
 */
import { z } from 'zod';

z.config({ jitless: true });

export { z };
