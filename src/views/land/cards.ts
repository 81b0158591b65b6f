/** What Land shows of what is chosen: loaded together when something first is. */
export { LineCard } from './LineCard.js';
export { ManyCard } from './ManyCard.js';
export { PaddockCard } from './PaddockCard.js';
export { ThingCard } from './ThingCard.js';
export { WalkReview } from './WalkReview.js';
export { PlaceForm } from './PlaceForm.js';
export { DrawPanel } from './DrawPanel.js';
