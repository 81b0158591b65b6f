/** The shape of the shipped catalogue: what a record of each table says. */
import { Type } from '../base/type.js';
import { METALS } from './schemaParts.js';

const closed = { additionalProperties: false } as const;
const mark = Type.Union(
  ['published', 'practice', 'memory', 'derived', 'assumed', 'invented'].map((m) => Type.Literal(m)),
  { description: 'where the figure comes from' },
);
const origin = { name: Type.String(), mark, why: Type.String({ minLength: 8 }) };
const positive = Type.Number({ exclusiveMinimum: 0 });

const FigureSchema = Type.Object({ value: Type.Number(), unit: Type.String(), mark }, closed);
const ProfileSchema = Type.Object(
  {
    ...origin,
    role: Type.Union([Type.Literal('stock'), Type.Literal('predator')]),
    size: Type.Union([Type.Literal('large'), Type.Literal('small')]),
    lowestMax_m: positive,
    gapMax_m: positive,
    gapZone_m: positive,
    upperGapMax_m: positive,
    topMin_m: positive,
    minStrands: Type.Integer({ minimum: 1 }),
    aim_V: positive,
    noBarbed: Type.Boolean(),
    animal: Type.String(),
    minLive: Type.Integer({ minimum: 1 }),
    lowestLive: Type.Boolean({ description: 'the lowest strand carries volts, always' }),
    topLive: Type.Boolean({ description: 'they lean on a top that is not live' }),
    seenTop: Type.Boolean({ description: 'the top is seen from afar' }),
    reach_m: Type.Number({ exclusiveMinimum: 0, description: 'gaps below it are pushed into' }),
    holdBay_m: positive,
    holdTension_N: positive,
  },
  closed,
);
const AnimalSchema = Type.Object(
  {
    ...origin,
    young: Type.String(),
    shoulder_m: positive,
    young_m: positive,
    body_ohm: positive,
    hoof_m: positive,
  },
  {
    ...closed,
    description: 'shoulder heights grown and young; resistance nose to hoof; radius of a hoof',
  },
);
const FORMS = ['plain', 'barbed', 'rope', 'tape', 'panel'] as const;
const WireSchema = Type.Object(
  {
    ...origin,
    form: Type.Union(FORMS.map((f) => Type.Literal(f))),
    metal: Type.Union(
      METALS.map((m) => Type.Literal(m)),
      { description: 'of its surface: what it may be tied to' },
    ),
    mass_kg_per_m: Type.Optional(positive),
    EA_N: Type.Optional(positive),
    tension_N: Type.Optional(Type.Number({ description: 'strung no tighter than this' })),
    runMost_m: Type.Optional(Type.Number({ description: 'on longer runs it stretches' })),
    insulates: Type.Optional(Type.Boolean({ description: 'it carries no volts' })),
    break_N: Type.Optional(
      Type.Number({ description: 'as broken on a bench; else strength by section' }),
    ),
    creep: Type.Optional(
      Type.Number({ description: 'share of its tension that it loses in the first year' }),
    ),
    diameter_mm: positive,
    tensile_MPa: positive,
    dc_ohm_per_km: positive,
    planning_ohm_per_km: positive,
    best_ohm_per_km: positive,
    guaranteed_ohm_per_km: positive,
    pulse_ohm_per_km: positive,
    pulse_uH_per_m: positive,
    coil_m: positive,
  },
  closed,
);
const EnergiserModelSchema = Type.Object(
  {
    ...origin,
    supply: Type.Union([Type.Literal('mains'), Type.Literal('battery'), Type.Literal('solar')]),
    stored_J: positive,
    output_J: positive,
    open_V: positive,
    at500_V: positive,
    at200_V: positive,
    at100_V: positive,
    at50_V: positive,
    interval_s: positive,
    offered: Type.Boolean({ description: 'false: shown if already owned, never proposed' }),
  },
  closed,
);
const PostSchema = Type.Object(
  {
    ...origin,
    use: Type.Union([Type.Literal('line'), Type.Literal('end'), Type.Literal('brace')]),
    length_m: positive,
    embedment_m: positive,
    perimeter_m: positive,
    mass_kg: positive,
    family: Type.String({ description: 'kinds of one family differ in length alone' }),
    conducts: Type.Boolean(),
    takes: Type.Union([Type.Literal('insulator'), Type.Literal('clip')], {
      description: 'what a live strand hangs on',
    }),
    insulates: Type.Optional(Type.Boolean({ description: 'it is itself an insulator' })),
    flexible: Type.Optional(Type.Boolean({ description: 'for wire with only the sag taken out' })),
    life_y: positive,
    price: Type.String(),
  },
  closed,
);
const InsulatorSchema = Type.Object(
  {
    ...origin,
    where: Type.Union([Type.Literal('post'), Type.Literal('end')]),
    posts: Type.Array(Type.String(), { description: 'families of posts that it fits' }),
    forms: Type.Array(Type.Union(FORMS.map((f) => Type.Literal(f)))),
    hole_mm: Type.Number({ exclusiveMinimum: 0, description: 'thickest strand that goes in' }),
    bearing_N: Type.Number({
      exclusiveMinimum: 0,
      description: 'side pull, at an end the tension',
    }),
    price: Type.String(),
  },
  closed,
);
const SoilSchema = Type.Object(
  {
    ...origin,
    dry_ohm_m: positive,
    damp_ohm_m: positive,
    wet_ohm_m: positive,
    adhesion_Pa: Type.Number({ minimum: 0 }),
    shaftGrowth_N_per_m3: Type.Number({ minimum: 0 }),
    su_Pa: Type.Number({ minimum: 0, description: 'undrained strength; 0 where friction holds' }),
    phi_deg: Type.Number({ minimum: 0, maximum: 50 }),
    gamma_N_per_m3: positive,
    lateral_kPa_per_m: Type.Number({ exclusiveMinimum: 0, description: 'allowed by the code' }),
    k0_N_per_m2: Type.Number({ minimum: 0, description: 'springs beside a post, at the surface' }),
    nh_N_per_m3: Type.Number({ minimum: 0, description: 'their growth with depth' }),
    drives: Type.Boolean({ description: 'posts can be driven' }),
    shrinks: Type.Boolean({ description: 'opens round a post as it dries' }),
    firm: Type.Boolean(),
  },
  closed,
);
const EndKindSchema = Type.Object({ ...origin, hours: positive }, closed);
const SettingSchema = Type.Object(
  {
    ...origin,
    shaft: Type.Number({ exclusiveMinimum: 0, description: 'share of a driven post’s friction' }),
    room_m: Type.Number({ minimum: 0, description: 'between post and hole, all round' }),
    wait_h: Type.Number({ minimum: 0, description: 'until it may be loaded' }),
    hours: Type.Number({ exclusiveMinimum: 0, description: 'of work a post' }),
    against: Type.String({ minLength: 8 }),
  },
  closed,
);
export const SOIL_STATES = ['dry', 'damp', 'wet', 'frozen'] as const;
const SeasonSchema = Type.Object(
  {
    ...origin,
    leakage_S_per_km: positive,
    soil: Type.Union(SOIL_STATES.map((s) => Type.Literal(s))),
  },
  closed,
);
const JointSchema = Type.Object(
  {
    ...origin,
    where: Type.Array(Type.Union([Type.Literal('end'), Type.Literal('join')]), {
      description: 'ties a strand to its end, or joins two wires under tension',
    }),
    efficiency: Type.Number({
      description: 'share of the strength of the wire',
      minimum: 0,
      maximum: 1,
    }),
    low: Type.Number({ description: 'the least that is met' }),
    high: Type.Number({ description: 'the most that is met' }),
    slip_m: Type.Number({ minimum: 0, description: 'how far it slips as it beds' }),
    tail_m: Type.Number({ minimum: 0, description: 'wire that one takes beyond it' }),
    price: Type.Union([Type.Null(), Type.String()]),
  },
  closed,
);
const SchoolSchema = Type.Object({ ...origin, tension_N: positive }, closed);
const OrderSchema = Type.Object(origin, closed);
const OldFenceSchema = Type.Object(
  { ...origin, strands: Type.Array(Type.Tuple([Type.String(), positive])) },
  { ...closed, description: 'an old fence as it is often met: wire and height, m' },
);
const KindSchema = Type.Object(
  {
    ...origin,
    materials: Type.Record(Type.String(), positive, {
      description: 'metres of each priced item for a metre of one row',
    }),
    atPost: Type.Record(Type.String(), positive, {
      description: 'what each post of a row carries: priced items',
    }),
    rows: Type.Integer({ minimum: 1 }),
    shape: Type.Optional(
      Type.Union(
        ['upright', 'leaning', 'rows'].map((s) => Type.Literal(s)),
        {
          description: 'how a fence against deer stands',
        },
      ),
    ),
    post: Type.Union([Type.Null(), Type.String()], { description: 'price of a post; null: none' }),
    bayLarge_m: positive,
    baySmall_m: positive,
    braces: Type.Number({ minimum: 0, description: 'at the two ends of a run' }),
    life_y: positive,
    upkeep_h_per_km: positive,
    holds: Type.Array(Type.String()),
    stops: Type.Array(Type.String()),
  },
  { ...closed, description: 'another kind of fence, for the comparison' },
);
const DropperKindSchema = Type.Object(
  {
    ...origin,
    rests: Type.Boolean({ description: 'stands on the ground; else the strands carry it' }),
    seen: Type.Boolean(),
    mass_kg: positive,
    price: Type.String(),
  },
  closed,
);
const SpacingSchema = Type.Object(
  {
    ...origin,
    bay_m: positive,
    dropper: Type.Optional(Type.Object({ kind: Type.String(), each_m: positive }, closed)),
  },
  closed,
);
const ConnectorKindSchema = Type.Object(
  {
    ...origin,
    price: Type.Union([Type.String(), Type.Null()], { description: 'item of the price book' }),
    minutes: positive,
    aged_ohm: positive,
  },
  closed,
);
const PriceSchema = Type.Object(
  {
    ...origin,
    price: Type.Number({ minimum: 0, description: 'of one, without tax' }),
    per: Type.String({ description: 'what one is: each, m, coil, box, bag, t, day' }),
    pack: Type.Optional(Type.Number({ exclusiveMinimum: 0, description: 'sold by so many' })),
    of: Type.Optional(Type.String({ description: 'of another reel: the wire on it' })),
    coil_m: Type.Optional(positive),
    on: Type.Optional(Type.String({ description: 'day of the price, YYYY-MM-DD' })),
    supplier: Type.Optional(Type.String()),
    tax: Type.Optional(Type.Number({ description: 'share of the price that is added' })),
  },
  closed,
);

export const CatalogueSchema = Type.Object(
  {
    animals: Type.Record(Type.String(), AnimalSchema),
    orders: Type.Record(Type.String(), OrderSchema),
    kinds: Type.Record(Type.String(), KindSchema),
    oldFences: Type.Record(Type.String(), OldFenceSchema),
    defaults: Type.Record(Type.String(), FigureSchema),
    profiles: Type.Record(Type.String(), ProfileSchema),
    wires: Type.Record(Type.String(), WireSchema),
    energisers: Type.Record(Type.String(), EnergiserModelSchema),
    posts: Type.Record(Type.String(), PostSchema),
    ends: Type.Record(Type.String(), EndKindSchema),
    settings: Type.Record(Type.String(), SettingSchema),
    soils: Type.Record(Type.String(), SoilSchema),
    seasons: Type.Record(Type.String(), SeasonSchema),
    schools: Type.Record(Type.String(), SchoolSchema),
    joints: Type.Record(Type.String(), JointSchema),
    spacings: Type.Record(Type.String(), SpacingSchema),
    droppers: Type.Record(Type.String(), DropperKindSchema),
    connectors: Type.Record(Type.String(), ConnectorKindSchema),
    insulators: Type.Record(Type.String(), InsulatorSchema),
    prices: Type.Record(Type.String(), PriceSchema),
  },
  { ...closed, $id: 'anabatic-catalogue-1', title: 'Anabatic catalogue' },
);
