import { createHash } from 'node:crypto';

/** SHA-256 in hexadecimal, of bytes or of text as UTF-8. */
export const sha256 = (content: Uint8Array | string): string =>
  createHash('sha256').update(content).digest('hex');
