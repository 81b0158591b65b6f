/** How words stand in a line. */

/** Words as a sentence: with a capital and a full stop. */
export const sentence = (words: string): string =>
  `${words.charAt(0).toUpperCase()}${words.slice(1)}.`;
