/** Colours of the scheme, for drawing on a canvas. */
export interface Tokens {
  readonly sheet: string;
  readonly panel: string;
  readonly ink: string;
  readonly soft: string;
  readonly rule: string;
  readonly live: string;
  readonly earth: string;
  readonly warn: string;
  readonly chosen: string;
  readonly pick: string;
  readonly stop: string;
  readonly mend: string;
  readonly confirm: string;
  readonly shade: number;
}

let last: { scheme: string | undefined; tokens: Tokens } | null = null;

/** The colours of the scheme that is shown; read from the page once for each scheme. */
export function tokens(): Tokens {
  const scheme = document.documentElement.dataset['scheme'];
  if (last?.scheme !== scheme || !last) last = { scheme, tokens: readTokens() };
  return last.tokens;
}

function readTokens(): Tokens {
  const css = getComputedStyle(document.documentElement);
  const read = (name: string) => css.getPropertyValue(`--${name}`).trim();
  return {
    sheet: read('sheet'),
    panel: read('panel'),
    ink: read('ink'),
    soft: read('soft'),
    rule: read('rule'),
    live: read('live'),
    earth: read('earth'),
    warn: read('warn'),
    chosen: read('chosen'),
    pick: read('pick'),
    stop: read('stop'),
    mend: read('mend'),
    confirm: read('confirm'),
    shade: Number(read('shade')) || 1,
  };
}
