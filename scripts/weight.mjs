/**
 * What a page loads before it can be used: kB of script, packed, over the files that its entry imports, with the panel of a step. Budgets are ceilings, not aims: whoever
 * gets below one lowers it.
 */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';

/** kB by route; the panel of a step counts with its page. */
const BUDGETS = {
  '/jobs': 100,
  '/kit': 100,
  '/boards': 95,
  '/settings': 108,
  '/run/[id=uuid]/[op=operation]': 184,
  IntakePanel: 210,
  DiagnosePanel: 215,
  PlanPanel: 218,
  ProtectPanel: 192,
  HandsPanel: 200,
  VerifyPanel: 166,
  ReleasePanel: 182,
};
const STEP = '/jobs/[id=uuid]/[step=step]';
const STEP_PAGE = `src/routes${STEP}/+page.ts`;

/** Pages of a build with their kB, as `{ name, kB }`. */
function weights(output) {
  const manifest = JSON.parse(readFileSync(join(output, 'client/.vite/manifest.json'), 'utf8'));
  const server = readFileSync(join(output, 'server/manifest-full.js'), 'utf8');
  const sizes = new Map();
  const sizeOf = (file) => {
    if (!sizes.has(file)) sizes.set(file, gzipSync(readFileSync(join(output, 'client', file))).length);
    return sizes.get(file);
  };
  const withImports = (key, seen = new Set()) => {
    if (!manifest[key] || seen.has(key)) return seen;
    seen.add(key);
    for (const other of manifest[key].imports ?? []) withImports(other, seen);
    return seen;
  };
  const kB = (keys) => {
    const all = keys.reduce((seen, key) => withImports(key, seen), new Set());
    const files = [...all].map((key) => manifest[key].file).filter((file) => file.endsWith('.js'));
    return files.reduce((sum, file) => sum + sizeOf(file), 0) / 1000;
  };
  const keys = Object.keys(manifest);
  const node = (n) => keys.find((key) => key.endsWith(`/nodes/${n.trim()}.js`));
  const start = keys.filter(
    (key) => manifest[key].isEntry && /(runtime\/client\/entry|client-optimized\/app)\.js$/.test(key),
  );
  const pages = server.matchAll(
    /id: "([^"]+)",[\s\S]*?page: (?:null|\{ layouts: \[([^\]]*)\], errors: \[[^\]]*\], leaf: (\d+) \})/g,
  );
  return [...pages].flatMap(([, id, layouts, leaf]) => {
    if (leaf === undefined) return [];
    const own = [
      ...start,
      ...layouts
        .split(',')
        .filter((n) => n.trim() !== '')
        .map(node),
      node(leaf),
    ].filter(Boolean);
    if (id !== STEP) return [{ name: id, kB: kB(own) }];
    // a panel may lie in a chunk of another name: the page names them in the order in which it loads them
    const loaded = manifest[node(leaf)].dynamicImports ?? [];
    const named = [...readFileSync(join(output, '../..', STEP_PAGE), 'utf8').matchAll(/(\w+Panel)\.svelte/g)];
    if (named.length !== loaded.length) throw new Error(`${STEP_PAGE} loads other panels than it names`);
    return loaded.map((key, n) => ({ name: named[n][1], kB: kB([...own, key]) }));
  });
}

/** Holds the pages of a build against their budgets; `say` gets a line for each that is over it. */
export function weigh(output, say) {
  const found = new Map(weights(output).map(({ name, kB }) => [name, kB]));
  let failed = 0;
  for (const [name, budget] of Object.entries(BUDGETS)) {
    const kB = found.get(name);
    if (kB !== undefined && kB <= budget) continue;
    failed++;
    say(
      `${name} loads ${kB === undefined ? 'nothing that is known' : `${kB.toFixed(0)} kB`} of script; its budget is ${budget} kB.`,
    );
  }
  return { passed: Object.keys(BUDGETS).length - failed, failed };
}
