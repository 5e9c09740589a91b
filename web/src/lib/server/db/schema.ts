/**
 * The database. Keys are UUIDv7 made by whoever creates the row; every edited table has `version` for
 * optimistic locking; jsonb documents carry their own `v` and are checked on read by the repositories.
 */
import type { BoardModel } from '@orthos/core/board';
import type { MeterType, Netlist } from '@orthos/core/circuit';
import type { RoutineStep } from '@orthos/core/diagnosis';
import type { Measured } from '@orthos/core/ground';
import { JOB_TYPE_IDS, type JobEventBody, type SetItem, type SupplyPoint, type KitSnapshot } from '@orthos/core/job';
import type { Planned } from '@orthos/core/compare';
import type { KitItem as KitSpec, KitTool, Method, StationModel } from '@orthos/core/rework';
import { sql } from 'drizzle-orm';
import {
  boolean,
  customType,
  date,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgSequence,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uuid,
  type AnyPgColumn,
} from 'drizzle-orm/pg-core';
import type { StoredPlanSettings } from '../../plan/stored.ts';

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });
const id = () => uuid().primaryKey();
const moment = () => timestamp({ withTimezone: true, mode: 'date' });
const created = () => moment().notNull().defaultNow();
const version = () => integer().notNull().default(1);

export const customers = pgTable(
  'customers',
  {
    id: id(),
    name: text().notNull(),
    contact: text().notNull().default(''),
    createdAt: created(),
    version: version(),
  },
  (t) => [index().on(t.name), index('customers_words').using('gin', t.name.op('gin_trgm_ops'))],
);

/** A kind of board: one editable draft, immutable published versions. */
export const boardModels = pgTable('board_models', {
  id: id(),
  name: text().notNull(),
  field: text().notNull().default(''),
  /** Made from an express job's answers; not listed among the boards. */
  express: boolean().notNull().default(false),
  /** Where it came from: a file's name, "traced", the model it was copied from. */
  origin: text().notNull().default(''),
  draft: jsonb().$type<BoardModel>().notNull(),
  createdAt: created(),
  updatedAt: created(),
  version: version(),
});

export const boardVersions = pgTable(
  'board_versions',
  {
    id: id(),
    modelId: uuid()
      .notNull()
      .references(() => boardModels.id),
    number: integer().notNull(),
    hash: text().notNull(),
    doc: jsonb().$type<BoardModel>().notNull(),
    publishedAt: created(),
  },
  (t) => [unique().on(t.modelId, t.number)],
);

/** Copper of imported boards by the hash that their documents name; gzip of its JSON. */
export const boardDrawings = pgTable('board_drawings', {
  hash: text().primaryKey(),
  doc: bytea().notNull(),
  createdAt: created(),
});

/** Packages that this shop has made for itself: a name for a designation. */
export const ownPackages = pgTable('own_packages', {
  id: id(),
  label: text().notNull().unique(),
  designation: text().notNull(),
  createdAt: created(),
});

/** A circuit drawn round a fault of a kind of board; jobs on it share what was drawn once. */
export const circuits = pgTable(
  'circuits',
  {
    id: id(),
    modelId: uuid()
      .notNull()
      .references(() => boardModels.id),
    name: text().notNull(),
    netlist: jsonb().$type<Netlist>().notNull(),
    updatedAt: created(),
    version: version(),
  },
  (t) => [index().on(t.modelId, t.name)],
);

/** What good boards of a kind read, unit by unit. */
export const goodReadings = pgTable(
  'good_readings',
  {
    id: id(),
    modelId: uuid()
      .notNull()
      .references(() => boardModels.id),
    /** Serial or nickname of the unit that was measured. */
    unit: text().notNull(),
    type: text().$type<MeterType>().notNull(),
    red: text().notNull(),
    black: text().notNull(),
    /** State of power; empty without. */
    state: text().notNull().default(''),
    value: jsonb().$type<Measured>().notNull(),
    takenAt: created(),
  },
  (t) => [index().on(t.modelId)],
);

/** What a good unit of a kind of board draws while it starts. */
export const goodStartUps = pgTable(
  'good_start_ups',
  {
    id: id(),
    modelId: uuid()
      .notNull()
      .references(() => boardModels.id),
    unit: text().notNull(),
    stages: jsonb().$type<SupplyPoint[]>().notNull(),
    takenAt: created(),
  },
  (t) => [index().on(t.modelId)],
);

/** The shop's own order of tests, for a family of boards. */
export const routines = pgTable('routines', {
  id: id(),
  name: text().notNull(),
  steps: jsonb().$type<RoutineStep[]>().notNull(),
  updatedAt: created(),
  version: version(),
});

/** The kinds of board that make up the family of a routine. */
export const routineModels = pgTable(
  'routine_models',
  {
    routineId: uuid()
      .notNull()
      .references(() => routines.id, { onDelete: 'cascade' }),
    modelId: uuid()
      .notNull()
      .references(() => boardModels.id),
  },
  (t) => [primaryKey({ columns: [t.routineId, t.modelId] }), index().on(t.modelId)],
);

/** Lists of parts that are done together on a kind of board: one under each name. */
export const partLists = pgTable(
  'part_lists',
  {
    id: id(),
    modelId: uuid()
      .notNull()
      .references(() => boardModels.id),
    name: text().notNull(),
    items: jsonb().$type<SetItem[]>().notNull(),
    createdAt: created(),
  },
  (t) => [unique().on(t.modelId, t.name)],
);

/** A physical board. */
export const boards = pgTable(
  'boards',
  {
    id: id(),
    modelId: uuid()
      .notNull()
      .references(() => boardModels.id),
    customerId: uuid().references(() => customers.id),
    serial: text().notNull().default(''),
    createdAt: created(),
  },
  (t) => [index().on(t.modelId)],
);

/** Number of a shop's first ticket. */
export const FIRST_NUMBER = 101;
export const ticketNumbers = pgSequence('ticket_numbers', { startWith: FIRST_NUMBER });

export const tickets = pgTable(
  'tickets',
  {
    id: id(),
    number: integer()
      .notNull()
      .unique()
      .default(sql`nextval('ticket_numbers')`),
    kind: text({ enum: JOB_TYPE_IDS }).notNull(),
    customerId: uuid()
      .notNull()
      .references(() => customers.id),
    boardId: uuid()
      .notNull()
      .references(() => boards.id),
    boardVersionId: uuid()
      .notNull()
      .references(() => boardVersions.id),
    device: text().notNull(),
    complaint: text().notNull(),
    inBox: text().notNull().default(''),
    waitsFor: text().notNull().default(''),
    promisedOn: date({ mode: 'string' }),
    /** The closed ticket that this one takes up again. */
    reopensId: uuid().references((): AnyPgColumn => tickets.id),
    planSettings: jsonb().$type<StoredPlanSettings>(),
    createdAt: created(),
    closedAt: moment(),
    version: version(),
  },
  (t) => [
    // pages of open and of closed jobs, and how many there are
    index('tickets_open')
      .on(t.number)
      .where(sql`${t.closedAt} is null`),
    index('tickets_closed')
      .on(t.number)
      .where(sql`${t.closedAt} is not null`),
    index().on(t.closedAt),
    index().on(t.reopensId),
    index().on(t.boardId),
    index().on(t.boardVersionId),
    index().on(t.customerId),
    // words of a search, by their letters three by three
    index('tickets_words').using('gin', sql`(${t.device} || ' ' || ${t.complaint}) gin_trgm_ops`),
  ],
);

/** The append-only log of a job; `seq` is the order of writing. */
export const jobEvents = pgTable(
  'job_events',
  {
    id: id(),
    ticketId: uuid()
      .notNull()
      .references(() => tickets.id),
    seq: integer().generatedAlwaysAsIdentity().notNull(),
    at: moment().notNull(),
    actor: text().notNull(),
    v: integer().notNull(),
    body: jsonb().$type<JobEventBody>().notNull(),
  },
  (t) => [
    index().on(t.ticketId, t.seq),
    // which jobs wait to be fetched
    index('job_events_handed_over')
      .on(t.ticketId)
      .where(sql`${t.body} ->> 'type' = 'handed-over'`),
  ],
);

export const plans = pgTable(
  'plans',
  {
    id: id(),
    ticketId: uuid()
      .notNull()
      .references(() => tickets.id),
    target: text().notNull(),
    /** Form that methods and results are stored in. */
    v: integer().notNull().default(1),
    inputHash: text().notNull(),
    engineVersion: integer().notNull(),
    kit: jsonb().$type<KitSnapshot>().notNull(),
    methods: jsonb().$type<Method[]>().notNull(),
    /** Results by the method's id; by its label in version 1. */
    results: jsonb().$type<Record<string, Planned>>().notNull(),
    /** All that is computed unasked is in it; not where hands took the best before the others were through. */
    whole: boolean().notNull().default(true),
    createdAt: created(),
  },
  (t) => [index().on(t.ticketId, t.createdAt), index().on(t.inputHash)],
);

/** A photo belongs to a job, or lies under a board model. */
export const photos = pgTable(
  'photos',
  {
    id: id(),
    ticketId: uuid().references(() => tickets.id),
    modelId: uuid().references(() => boardModels.id),
    caption: text().notNull().default(''),
    side: text({ enum: ['top', 'bottom'] }),
    taken: text({ enum: ['before', 'during', 'after'] })
      .notNull()
      .default('before'),
    width: integer().notNull(),
    height: integer().notNull(),
    createdAt: created(),
  },
  (t) => [index().on(t.ticketId), index().on(t.modelId)],
);

/** Kept apart so that listing photos never reads pictures. */
export const photoBlobs = pgTable('photo_blobs', {
  photoId: uuid()
    .primaryKey()
    .references(() => photos.id, { onDelete: 'cascade' }),
  image: bytea().notNull(),
  thumbnail: bytea().notNull(),
});

/** A tool or consumable. What nobody said of a bench is '' (it is at hand on all of them). */
export const kitItems = pgTable('kit_items', {
  id: id(),
  kind: text().$type<KitTool>().notNull(),
  name: text().notNull(),
  bench: text().notNull().default(''),
  /** How far its dials are from the truth; of air stations and irons. */
  doc: jsonb().$type<StationModel>(),
  /** What it can be set to and what belongs to it; what is usual for its kind where nobody said. */
  spec: jsonb().$type<KitSpec>(),
  outOfOrder: boolean().notNull().default(false),
  version: version(),
});

/** Instruments that answer over the network: meters, and supplies that start a board up. */
export const meters = pgTable('meters', {
  id: id(),
  kind: text({ enum: ['meter', 'supply'] })
    .notNull()
    .default('meter'),
  name: text().notNull(),
  bench: text().notNull().default(''),
  /** The simulated one that ships with the application; host and port are its own affair then. */
  simulated: boolean().notNull().default(false),
  host: text().notNull().default(''),
  port: integer().notNull().default(5025),
  /** Basic accuracy, % of reading. */
  ohmPercent: doublePrecision().notNull().default(0.8),
  voltPercent: doublePrecision().notNull().default(0.5),
  /** Resistance of its leads, Ω. */
  leadsOhm: doublePrecision().notNull().default(0.2),
  version: version(),
});

export const settings = pgTable('settings', {
  key: text().primaryKey(),
  value: jsonb().$type<unknown>().notNull(),
  version: version(),
});
