/** The catalogue that is shipped: a module of its own, since a worker that is given it need not bring it too. */
import animals from '../../../data/animals.json' with { type: 'json' };
import connectors from '../../../data/connectors.json' with { type: 'json' };
import defaults from '../../../data/defaults.json' with { type: 'json' };
import droppers from '../../../data/droppers.json' with { type: 'json' };
import ends from '../../../data/ends.json' with { type: 'json' };
import energisers from '../../../data/energisers.json' with { type: 'json' };
import insulators from '../../../data/insulators.json' with { type: 'json' };
import joints from '../../../data/joints.json' with { type: 'json' };
import kinds from '../../../data/kinds.json' with { type: 'json' };
import oldFences from '../../../data/oldFences.json' with { type: 'json' };
import orders from '../../../data/orders.json' with { type: 'json' };
import posts from '../../../data/posts.json' with { type: 'json' };
import prices from '../../../data/prices.json' with { type: 'json' };
import profiles from '../../../data/profiles.json' with { type: 'json' };
import schools from '../../../data/schools.json' with { type: 'json' };
import seasons from '../../../data/seasons.json' with { type: 'json' };
import settings from '../../../data/settings.json' with { type: 'json' };
import soils from '../../../data/soils.json' with { type: 'json' };
import spacings from '../../../data/spacings.json' with { type: 'json' };
import wires from '../../../data/wires.json' with { type: 'json' };
import type { Catalogue } from './catalogue.js';

/** The shipped catalogue, before a property's own figures. */
export const catalogue = {
  animals,
  orders,
  kinds,
  oldFences,
  defaults,
  profiles,
  wires,
  energisers,
  posts,
  ends,
  settings,
  soils,
  seasons,
  schools,
  joints,
  spacings,
  droppers,
  connectors,
  insulators,
  prices,
} as unknown as Catalogue;
