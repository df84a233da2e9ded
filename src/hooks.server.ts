import type { HandleServerError } from '@sveltejs/kit';
import pino from 'pino';
import { isConnectionLoss, OperatorError } from '$server/index';

const log = pino({ name: 'app' }, pino.destination(2));

/** What a person sees of a failure: what happened and what to do, never a stack. */
export const handleError: HandleServerError = ({ error, event, status, message }) => {
  if (status === 404) return { message: 'There is no such page.', remedy: 'Go back to your sites.' };
  const path = event.url.pathname;
  log.error({ path, error: error instanceof Error ? { message: error.message, stack: error.stack } : error }, message);
  if (isConnectionLoss(error))
    return {
      message: 'The database does not answer.',
      remedy: 'Nothing is lost. Wait a moment and load the page again; if that does not help, restart Edge Map.',
    };
  if (error instanceof OperatorError) return { message: error.message };
  return {
    message: 'Something went wrong inside Edge Map.',
    remedy: 'Load the page again. The log of the app says more.',
  };
};
