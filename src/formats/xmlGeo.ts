/** GPX and KML text to GeoJSON, with hostile documents refused before they are parsed. */
import { gpx, kml } from '@tmcw/togeojson';
import { DOMParser } from '@xmldom/xmldom';
import { FormatError } from './error.js';

/** Deeper nesting than any track has; parsers recurse. */
const MAX_DEPTH = 60;

/**
 * Reads an XML track file.
 * @throws FormatError for a document type, entities, deep nesting, or a wrong root
 */
export function xmlToGeoJson(format: 'gpx' | 'kml', text: string): unknown {
  const name = format.toUpperCase();
  // No track needs a document type; entities in one can be made to swell without end.
  if (/<!DOCTYPE|<!ENTITY/i.test(text))
    throw new FormatError('', `a ${name} file with a document type is not read`);
  checkDepth(text);
  let fault = '';
  const parser = new DOMParser({
    onError: (level, message) => {
      if (level !== 'warning' && !fault) fault = plain(message);
    },
  });
  try {
    const doc = parser.parseFromString(text, 'text/xml');
    if (!fault && doc.documentElement?.localName !== format)
      fault = `the file holds no <${format}>`;
    if (!fault) return (format === 'gpx' ? gpx : kml)(doc as unknown as Document);
  } catch (error) {
    fault ||= plain((error as Error).message);
  }
  throw new FormatError('', `not a ${name} file: ${fault}`);
}

/** The parser's word without the text of the file that it repeats. */
const plain = (message: string): string =>
  message
    .split('\n')[0]!
    .replace(/["'`<].*$/, '')
    .trim()
    .slice(0, 80) || 'it is not well-formed';

/** One walk through the text: nothing is searched twice, whatever is left open. */
function checkDepth(text: string): void {
  let depth = 0;
  let end = 0;
  for (let at = text.indexOf('<'); at >= 0; at = text.indexOf('<', at + 1)) {
    const next = text[at + 1];
    if (next === '/') depth--;
    else if (next !== '!' && next !== '?') {
      if (end <= at) end = text.indexOf('>', at);
      if (end < 0) throw new FormatError('', 'an element is not closed');
      if (text[end - 1] !== '/') depth++;
      if (depth > MAX_DEPTH) throw new FormatError('', 'elements nested too deep');
    }
  }
}
