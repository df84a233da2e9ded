import type { FetchError } from '$core/facts';

const byCode: [RegExp, FetchError][] = [
  [/^(ENOTFOUND|EAI_\w+)$/, 'dns'],
  [/^EDGEMAP_PRIVATE$/, 'private'],
  [/^ECONNREFUSED$/, 'refused'],
  [/^(EHOSTUNREACH|ENETUNREACH|EADDRNOTAVAIL)$/, 'unreachable'],
  [/^(UND_ERR_\w*TIMEOUT|ETIMEDOUT|ERR_TIMEOUT)$/, 'timeout'],
  [
    /^(CERT_\w+|DEPTH_ZERO_\w+|UNABLE_TO_\w+|SELF_SIGNED_\w+|ERR_TLS_\w+|ERR_SSL_\w+|EPROTO|\w+_CERT\w*|HOSTNAME_MISMATCH)$/,
    'tls',
  ],
  [/^(ECONNRESET|EPIPE|UND_ERR_SOCKET|UND_ERR_ABORTED)$/, 'reset'],
  [/^(HPE_\w+|UND_ERR_\w+|Z_\w+|ERR_BUFFER_TOO_LARGE|ERR__?ERROR\w*|ERR_INVALID_\w+)$/, 'malformed'],
];

/** Tells what kind of failure kept an answer from coming, from the codes of Node, OpenSSL and undici. */
export function classifyError(error: unknown): FetchError {
  for (let at = error; at instanceof Error; at = at.cause) {
    if (at.name === 'TimeoutError') return 'timeout';
    // undici gives this one no code when the very first bytes are wrong.
    if (at.name === 'HTTPParserError') return 'malformed';
    const { code } = at as { code?: unknown };
    const known = typeof code === 'string' && byCode.find(([pattern]) => pattern.test(code));
    if (known) return known[1];
    // Several addresses of one host were tried; they failed alike.
    if (at instanceof AggregateError && at.errors.length) return classifyError(at.errors[0]);
  }
  return 'network';
}
