/** All bench cards, in the order in which a fence wants them. */
import type { HandCard } from '../card.js';
import { field } from './field.js';
import { joins } from './joins.js';
import { jumpers } from './jumpers.js';
import { knots } from './knots.js';

export const CARDS: readonly HandCard[] = [...knots, ...joins, ...jumpers, ...field];

/** The card of an id; undefined where there is none. */
export const cardOf = (id: string): HandCard | undefined => CARDS.find((c) => c.id === id);
