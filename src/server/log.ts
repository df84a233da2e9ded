import pino from 'pino';
import type { DestinationStream } from 'pino';

/** Where a log goes. A disk that is full loses lines of the log, and never ends the program that writes them. */
export function logTo(descriptor: number): DestinationStream {
  const destination = pino.destination({ fd: descriptor, sync: true });
  destination.on('error', () => {});
  return destination;
}
