/** Questions to a worker of the browser, which answers them in turn. */

type Port<Q, A> = {
  onmessage: (event: { data: { id: number; question: Q } }) => void;
  postMessage: (message: { id: number; answer?: A; failed?: string }) => void;
};

/** Asks a worker. A question names what is asked, and its answer says to which question it is. */
export function askWorker<Q extends { ask: string }, A extends { to: Q['ask'] }>(worker: Worker) {
  const waiting = new Map<number, { done: (answer: A) => void; failed: (error: Error) => void }>();
  let last = 0;
  worker.onmessage = ({ data }: MessageEvent<{ id: number; answer?: A; failed?: string }>) => {
    const who = waiting.get(data.id);
    waiting.delete(data.id);
    if (data.answer) who?.done(data.answer);
    else who?.failed(new Error(data.failed));
  };
  const fail = (message: string) => {
    for (const { failed } of waiting.values()) failed(new Error(message));
    waiting.clear();
  };
  worker.onerror = ({ message }) => fail(message);
  return {
    ask: <One extends Q>(question: One): Promise<Extract<A, { to: One['ask'] }>> =>
      new Promise((done, failed) => {
        waiting.set(++last, { done: done as (answer: A) => void, failed });
        worker.postMessage({ id: last, question });
      }),
    close: () => {
      worker.terminate();
      fail('closed');
    },
  };
}

/** Answers what the worker, in which this runs, is asked. */
export function answerQuestions<Q, A>(answerTo: (question: Q) => Promise<A>): void {
  const port = globalThis as unknown as Port<Q, A>;
  port.onmessage = ({ data: { id, question } }) => {
    answerTo(question).then(
      (answer) => port.postMessage({ id, answer }),
      (error: unknown) => port.postMessage({ id, failed: (error as Error).message }),
    );
  };
}
