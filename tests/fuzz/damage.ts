/** Damages of a file, the same for the same seed. */
import { sequence } from '../unit/farm.js';

const WORDS = ['-1', '0', '1e308', '-1e308', '1e-308', 'NaN', 'null', '""', '[]', '{}', '4294967295', '9007199254740993', '"__proto__"', '"constructor"', '<', '>', '&', '\u0000', '\ufffe', '\ud800', ',', '\n', '"', '1,1', '../../x', 'true']; // prettier-ignore

function join2(...parts: Uint8Array[]): Uint8Array {
  return Uint8Array.from(Buffer.concat(parts));
}

/** @param seed of the sequence that chooses */
export function damages(seed: number) {
  const random = sequence(seed);
  const whole = (n: number) => Math.floor(random() * n);
  const pick = <T>(list: readonly T[]): T => list[whole(list.length)]!;

  /** One damage of a file. */
  function damage(bytes: Uint8Array): Uint8Array {
    const out = Uint8Array.from(bytes);
    const at = whole(out.length);
    switch (whole(9)) {
      case 0: // some bits
        for (let k = 0; k <= whole(8); k++) out[whole(out.length)]! ^= 1 << whole(8);
        return out;
      case 1: // cut short
        return out.slice(0, at);
      case 2: // a part again
        return join2(out.slice(0, at), out.slice(whole(at + 1)));
      case 3: // a word put in
        return join2(out.slice(0, at), new TextEncoder().encode(pick(WORDS)), out.slice(at));
      case 4: {
        // a number replaced
        const text = Buffer.from(out).toString('latin1');
        const found = [...text.matchAll(/-?\d+(\.\d+)?/g)];
        if (found.length === 0) return out;
        const m = pick(found);
        const next = text.slice(0, m.index) + pick(WORDS) + text.slice(m.index + m[0].length);
        return Buffer.from(next, 'latin1');
      }
      case 5: // a count or an offset in a header
        if (out.length > 8) new DataView(out.buffer).setUint32(whole(out.length - 4), pick([0, 1, 0x7fffffff, 0xffffffff, 0x10000, 65535]), random() < 0.5); // prettier-ignore
        return out;
      case 6: // a run of one byte
        out.fill(whole(256), at, at + whole(64));
        return out;
      case 7: // one thing very many times
      return join2(out.slice(0, at), new TextEncoder().encode(pick(WORDS).repeat(1 + whole(4000))), out.slice(at)); // prettier-ignore
      default: // several damages
        return damage(damage(out));
    }
  }

  return { damage, pick };
}
