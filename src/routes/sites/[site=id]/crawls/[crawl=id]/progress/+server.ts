import { error } from '@sveltejs/kit';
import { appDatabase, getCrawl } from '$server/index';
import type { RequestHandler } from './$types';

const EVERY_MS = 500;

/** How a crawl goes, as server-sent events, until it has ended. */
export const GET: RequestHandler = async ({ params }) => {
  const db = appDatabase();
  const id = Number(params.crawl);
  if ((await getCrawl(db, id))?.siteId !== Number(params.site)) error(404, 'There is no such crawl.');
  const encoder = new TextEncoder();
  let timer: ReturnType<typeof setTimeout>;
  let left = false;
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      const tell = async () => {
        try {
          const row = await getCrawl(db, id);
          if (left || !row) return;
          const { state, reason, known, done, unanswered, bytes, current } = row;
          controller.enqueue(
            encoder.encode(`data: ${JSON.stringify({ state, reason, known, done, unanswered, bytes, current })}\n\n`),
          );
          if (state !== 'waiting' && state !== 'running') return controller.close();
        } catch {
          // The browser asks again by itself when the stream ends.
          if (!left) controller.close();
          return;
        }
        timer = setTimeout(tell, EVERY_MS);
      };
      void tell();
    },
    cancel() {
      left = true;
      clearTimeout(timer);
    },
  });
  return new Response(body, { headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' } });
};
