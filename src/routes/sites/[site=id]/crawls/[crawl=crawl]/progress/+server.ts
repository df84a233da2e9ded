import { appDatabase, watchProgress } from '$server/index';
import { crawlOf } from '../../../../../crawl';
import type { RequestHandler } from './$types';

/** Events that wait for a reader, at most. */
const MOST_UNREAD = 20;

/** How a crawl goes, as server-sent events, until it has ended. */
export const GET: RequestHandler = ({ locals }) => {
  const { id } = crawlOf(locals);
  const encoder = new TextEncoder();
  let leave = () => {};
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      const stop = watchProgress(appDatabase(), id, {
        tell: (progress) => {
          // Whoever does not read misses what is old by the time it does.
          if ((controller.desiredSize ?? 0) > -MOST_UNREAD)
            controller.enqueue(encoder.encode(`data: ${JSON.stringify(progress)}\n\n`));
        },
        end: () => controller.close(),
      });
      leave = stop;
    },
    cancel: () => leave(),
  });
  return new Response(body, { headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' } });
};
