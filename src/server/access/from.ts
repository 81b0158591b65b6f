/** Where a request comes from. */
export interface From {
  /** The other end's, by the proxy's word where there is one. */
  readonly address: string;
  /** Others than this machine reach this server. */
  readonly remote: boolean;
  /** It came, or came to the proxy, by HTTPS. */
  readonly secure: boolean;
}

/**
 * Where a request comes from, by its connection and, behind a proxy, by what that has put down.
 * @param forwarded the header in which proxies name whom they ask for, each after the one before; undefined: there is none, or no proxy
 */
export const addressOf = (socket: string | undefined, forwarded: string | undefined): string =>
  // What the nearest proxy has put at the end is the only one that nobody else could have written.
  forwarded?.split(',').at(-1)?.trim() || (socket ?? '');
