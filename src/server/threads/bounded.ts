/** Work on what comes from outside, in a thread of its own that is ended when it takes too much. */
import { once } from 'node:events';
import { parentPort, Worker } from 'node:worker_threads';
import { EdgeMapError, failure } from '$core/errors';
import type { ErrorCode } from '$core/errors';

export interface ThreadBounds {
  /** MiB of heap. */
  megabytes: number;
  /** Milliseconds for which it may work without saying anything. */
  quiet: number;
  signal?: AbortSignal;
}

/** An error as it can be sent. */
interface Failed {
  isOwn: boolean;
  code: string | undefined;
  message: string;
}
/** What a thread says: that it asks for something, what came of its work, or why nothing did. */
type Said = { ask: unknown } | { result: unknown } | { failed: Failed };

/**
 * Runs a program in a thread until it has given its result.
 * @param file the built program, which calls {@link inThread}
 * @param task what it is given
 * @param answer what is sent back for each thing that it asks
 * @throws thread_time, thread_memory; the code and message of what the program throws; the reason of the signal
 */
export async function runThread<R>(
  file: string,
  task: unknown,
  answer: (asked: never) => unknown,
  { megabytes, quiet, signal }: ThreadBounds,
): Promise<R> {
  signal?.throwIfAborted();
  const thread = new Worker(file, { workerData: task, resourceLimits: { maxOldGenerationSizeMb: megabytes } });
  let timer: NodeJS.Timeout | undefined;
  let giveUp = () => {};
  try {
    return await new Promise<R>((resolve, reject) => {
      giveUp = () => reject(signal!.reason as Error);
      signal?.addEventListener('abort', giveUp);
      const watch = () => {
        timer = setTimeout(() => reject(failure('thread_time', 'It took too long.')), quiet);
      };
      // Also what happens after the end is listened to: an error that nobody hears ends the process.
      thread.on('error', (error: NodeJS.ErrnoException) =>
        reject(
          error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? failure('thread_memory', 'It took too much memory.') : error,
        ),
      );
      thread.on('exit', () => reject(new Error('The thread ended without a result.')));
      thread.on('message', (said: Said) => {
        clearTimeout(timer);
        if ('result' in said) return resolve(said.result as R);
        if ('failed' in said) return reject(asError(said.failed));
        Promise.resolve(answer(said.ask as never)).then((reply) => {
          thread.postMessage(reply);
          watch();
        }, reject);
      });
      watch();
    });
  } finally {
    clearTimeout(timer);
    signal?.removeEventListener('abort', giveUp);
    await thread.terminate();
  }
}

const asError = ({ isOwn, code, message }: Failed): Error =>
  isOwn ? new EdgeMapError(code as ErrorCode, message, {} as never) : Object.assign(new Error(message), { code });

/** The answer to what was asked last. */
let answered: Promise<unknown> = Promise.resolve();

/** Asks something of whoever runs this thread, one thing after the other. @returns the answer */
export function ask<T>(asked: unknown): Promise<T> {
  const asking = answered.then(async () => {
    parentPort!.postMessage({ ask: asked } satisfies Said);
    const [reply] = (await once(parentPort!, 'message')) as [T];
    return reply;
  });
  answered = asking;
  return asking;
}

/** Does the work of a thread and gives its result, or why there is none. @param transfer what of it is handed over */
export async function inThread<R>(
  work: () => Promise<R>,
  transfer: (result: R) => ArrayBuffer[] = () => [],
): Promise<void> {
  try {
    const result = await work();
    parentPort!.postMessage({ result } satisfies Said, transfer(result));
  } catch (error) {
    const { code, message } = error as NodeJS.ErrnoException;
    parentPort!.postMessage({ failed: { isOwn: error instanceof EdgeMapError, code, message } } satisfies Said);
  }
}
