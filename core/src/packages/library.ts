/**
 * Packages by name. A package is either a row of the library or is written out as its family and
 * parameters, `gull-four:pins=80,pitch=0.5,…`: the name then says everything, so a board document that uses
 * a package of one's own needs nothing beside it.
 */
import { checkParams, PackageParamError, type Family, type Fitted } from './family.ts';
import { FAMILIES } from './families/index.ts';
import { limitOfPackage, type PackageModel } from './packageModel.ts';
import { BYSTANDER_ROWS } from './rows/bystanders.ts';
import { CHIP_ROWS } from './rows/chips.ts';
import { CIRCUIT_ROWS } from './rows/circuits.ts';
import { POWER_ROWS } from './rows/power.ts';
import type { LibraryRow } from './rows/row.ts';

const OWN_SPREAD = { mm: 0.2, heat: 0.3 };

function familyOf(id: string): Family {
  const family = FAMILIES.get(id);
  if (!family)
    throw new PackageParamError('', `there is no package family "${id}"; known: ${[...FAMILIES.keys()].join(', ')}`);
  return family;
}

function build(
  name: Pick<PackageModel, 'id' | 'label' | 'words' | 'plusMinus' | 'source'>,
  family: Family,
  raw: Record<string, unknown>,
  fitted: Fitted,
): PackageModel {
  const shape = family.build(checkParams(family, raw), fitted);
  return { ...name, family: family.id, ...shape, limit: limitOfPackage(shape, shape.limit) };
}

const fromRow = (row: LibraryRow): PackageModel =>
  build(
    {
      id: row.id,
      label: row.label ?? row.id,
      words: row.words ?? '',
      plusMinus: row.plusMinus ?? OWN_SPREAD,
      source: row.source,
    },
    familyOf(row.family),
    row.p,
    row.fitted ?? {},
  );

const rows = [...CHIP_ROWS, ...CIRCUIT_ROWS, ...POWER_ROWS, ...BYSTANDER_ROWS];

/** The library: every named package. */
export const PACKAGES: ReadonlyMap<string, PackageModel> = new Map(rows.map((row) => [row.id, fromRow(row)]));

/**
 * Writes a package of one's own down. Values that are the family's initial ones are left out.
 * Throws `PackageParamError` when they do not fit.
 */
export function packageDesignation(familyId: string, raw: Record<string, unknown>): string {
  const family = familyOf(familyId);
  const values = checkParams(family, raw);
  const said = Object.entries(values).filter(([key, v]) => v !== family.params[key].initial);
  return `${familyId}:${said.map(([k, v]) => `${k}=${typeof v === 'number' ? Number(v.toFixed(4)) : v}`).join(',')}`;
}

/** The parts of a designation, or undefined when the text is none. Throws `PackageParamError` on a bad one. */
export function readDesignation(id: string): { family: Family; raw: Record<string, string> } | undefined {
  const colon = id.indexOf(':');
  if (colon < 0) return undefined;
  const family = familyOf(id.slice(0, colon));
  const raw: Record<string, string> = {};
  for (const pair of id.slice(colon + 1).split(',')) {
    if (pair === '') continue;
    const [key, value, ...more] = pair.split('=');
    if (value === undefined || more.length) throw new PackageParamError(key, 'is written key=value');
    if (Object.hasOwn(raw, key)) throw new PackageParamError(key, 'is said twice');
    raw[key] = value;
  }
  return { family, raw };
}

/** How a package of one's own is called: family and size. */
function ownLabel(family: Family, raw: Record<string, unknown>): string {
  const v = checkParams(family, raw);
  const size = [v.l ?? v.body ?? v.d, v.w ?? v.body, v.h].filter((n) => n !== undefined).join(' × ');
  const name = family.id === 'box' ? String(v.stuff) : family.id.replace('-', ' ');
  return `${name} ${v.pins ?? v.legs ?? v.ways ?? ''} ${size}`.replace(/\s+/g, ' ').trim();
}

const MOST_KEPT = 500;
const own = new Map<string, PackageModel>();

/**
 * The package called `id`: a library row or a designation. Throws with the known names, or with what does
 * not fit, when there is none.
 */
export function packageById(id: string): PackageModel {
  const found = PACKAGES.get(id) ?? own.get(id);
  if (found) return found;
  const read = readDesignation(id);
  if (!read) throw new Error(`No package "${id}"; known: ${[...PACKAGES.keys()].join(', ')}`);
  const made = build(
    {
      id,
      label: ownLabel(read.family, read.raw),
      words: '',
      plusMinus: OWN_SPREAD,
      source: 'typed in; heat figures derived from size',
    },
    read.family,
    read.raw,
    {},
  );
  if (own.size >= MOST_KEPT) own.clear();
  own.set(id, made);
  return made;
}

/** Says why `id` is no package, or nothing when it is one. */
export function packageTrouble(id: string): string | undefined {
  try {
    packageById(id);
    return undefined;
  } catch (error) {
    return PACKAGES.has(id) || id.includes(':') ? (error as Error).message : 'is not a package of the library';
  }
}
