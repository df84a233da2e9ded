/**
 * What a person may do. There are no accounts yet: Edge Map listens on loopback only, and whoever reaches it may do
 * everything. Accounts and share links are checked here, once for each request (src/hooks.server.ts).
 */
export interface Access {
  /** Look at sites and crawls. */
  view: boolean;
  /** Start crawls, change settings, save selections. */
  change: boolean;
}

const everything: Access = { view: true, change: true };

/** The rights of whoever makes a request. */
export const accessOf = (_request: Request): Access => everything;

/** Whether a request may be carried out: what is not GET or HEAD changes something. */
export const isAllowed = ({ view, change }: Access, { method }: Pick<Request, 'method'>): boolean =>
  method === 'GET' || method === 'HEAD' ? view : change;
