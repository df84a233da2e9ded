import { appDatabase, crawlState, watchCrawl } from '$server/index';
import { crawlOf } from '../../../../../crawl';
import type { Watched } from '$core/watch';
import type { RequestHandler } from './$types';

const EVERY_MS = 500;
/** What takes counting is told less often. */
const WATCH_EVERY = 4;

/** How a crawl goes, as server-sent events, until it has ended. */
export const GET: RequestHandler = ({ locals }) => {
  const db = appDatabase();
  const { id } = crawlOf(locals);
  const encoder = new TextEncoder();
  let timer: ReturnType<typeof setTimeout>;
  let left = false;
  let watched: Watched | undefined;
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      const tell = async (n: number) => {
        try {
          const row = await crawlState(db, id);
          if (left || !row) return;
          const { state, reason, request, known, done, unanswered, bytes, current, ranMs } = row;
          if (n % WATCH_EVERY === 0) watched = await watchCrawl(db, row);
          const now = { state, reason, request, known, done, unanswered, bytes, current, ranMs, watched };
          if (left) return;
          controller.enqueue(encoder.encode(`data: ${JSON.stringify(now)}\n\n`));
          // An ended crawl may still be analysed anew.
          const isMoving = state === 'waiting' || state === 'running' || state === 'paused' || watched?.analysis;
          if (!isMoving) return controller.close();
        } catch {
          // The browser asks again by itself when the stream ends.
          if (!left) controller.close();
          return;
        }
        timer = setTimeout(() => void tell(n + 1), EVERY_MS);
      };
      void tell(0);
    },
    cancel() {
      left = true;
      clearTimeout(timer);
    },
  });
  return new Response(body, { headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' } });
};
