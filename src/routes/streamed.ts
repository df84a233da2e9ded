/** Pieces of bytes as the body of an answer, made as they are read. */
export function streamedBytes(pieces: Generator<Uint8Array> | AsyncGenerator<Uint8Array>): ReadableStream<Uint8Array> {
  return new ReadableStream({
    async pull(controller) {
      const { done, value } = await pieces.next();
      if (done) controller.close();
      else controller.enqueue(value);
    },
  });
}

/** Pieces of a text as the body of an answer, made as they are read. */
export function streamed(texts: Generator<string>): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  return new ReadableStream({
    pull(controller) {
      const { done, value } = texts.next();
      if (done) controller.close();
      else controller.enqueue(encoder.encode(value));
    },
  });
}
