/**
 * The one shape of errors that Edge Map throws itself: a code that programs look at, parameters, a sentence that says
 * what happened, and what to do about it. Nothing looks at the text of an error.
 */

/** What comes with the error of each code. */
interface ErrorParams {
  /** A command was called in a wrong way. */
  usage: object;
  /** A robots.txt could not be had, which closes its host (RFC 9309 §2.3.1.4). */
  unavailable: object;
  /** Something that whoever runs the program has to put right first. */
  operator: object;
  /** The database could not be reached, so that trying again may help. */
  database_lost: object;
  /** A crawl has been analysed anew since, so that parts of two analyses would be read together. */
  analysed_anew: { crawl: number };
  /** Another worker has leased the job since. */
  lease_lost: { crawl: number };
  /** Another worker has taken over what this one held of a crawl. */
  membership_lost: object;
  /** A file that cannot be imported. */
  import: object;
  /** Work in a thread that took longer, or more memory, than it may. */
  thread_time: object;
  thread_memory: object;
  /** A stored snapshot has another form than this program reads. */
  snapshot_version: { version: number };
  /** A selection that cannot be read or answered: where in its text. */
  selection: { at: number; length: number };
}
export type ErrorCode = keyof ErrorParams;

export class EdgeMapError<C extends ErrorCode = ErrorCode> extends Error {
  override readonly name = 'EdgeMapError';
  constructor(
    readonly code: C,
    message: string,
    readonly params: ErrorParams[C],
    /** What a person does about it; null where the message says all. */
    readonly remedy: string | null = null,
  ) {
    super(message);
  }
}

/** Makes an error of a code that has no parameters. */
export const failure = <
  C extends
    | 'usage'
    | 'unavailable'
    | 'operator'
    | 'database_lost'
    | 'membership_lost'
    | 'import'
    | 'thread_time'
    | 'thread_memory',
>(
  code: C,
  message: string,
  remedy: string | null = null,
) => new EdgeMapError<C>(code, message, {}, remedy);

/** A selection that cannot be read, or takes too much work. @param at the place of what is wrong with it */
export const selectionFault = (message: string, at: number, length: number) =>
  new EdgeMapError('selection', message, { at, length });

/** Whether an error is one of some codes. */
export const isError = <C extends ErrorCode>(error: unknown, ...codes: C[]): error is EdgeMapError<C> =>
  error instanceof EdgeMapError && (codes as string[]).includes(error.code);

/** An error as one sentence after the other. */
export const toldError = ({ message, remedy }: EdgeMapError): string => (remedy ? `${message} ${remedy}` : message);
