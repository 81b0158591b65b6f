/** Where a request comes from. */
export interface From {
  /** The other end's, by the proxy's word where there is one. */
  readonly address: string;
  /** Others than this machine reach this server. */
  readonly remote: boolean;
  /** It came, or came to the proxy, by HTTPS. */
  readonly secure: boolean;
}
