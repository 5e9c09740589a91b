// Compiles the AssemblyScript heat kernel and writes it as base64 into one generated module.
// `--check` compares with the committed module instead and exits 1 when they differ.
import { readFileSync, writeFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import asc from 'assemblyscript/asc';

const here = dirname(fileURLToPath(import.meta.url));
const source = join(here, '../kernel/kernel.ts');
const target = join(here, '../src/thermal/kernelWasm.generated.ts');
const OPTIONS = '--runtime stub --noAssert --use abort= --enable simd -O3 --converge --importMemory --initialMemory 1';
const dir = mkdtempSync(join(tmpdir(), 'orthos-kernel-'));
try {
  const out = join(dir, 'kernel.wasm');
  const { error, stderr } = await asc.main([source, '--outFile', out, ...OPTIONS.split(' ')]);
  if (error) throw new Error(stderr.toString() || error.message);
  const base64 = readFileSync(out).toString('base64');
  const text = `// Generated from core/kernel/kernel.ts by core/scripts/build-kernel.mjs; do not edit.\nexport const kernelWasmBase64 =\n  '${base64}';\n`;
  if (process.argv.includes('--check')) {
    if (readFileSync(target, 'utf8') !== text) {
      console.error('The committed heat kernel differs from its source: run node core/scripts/build-kernel.mjs');
      process.exitCode = 1;
    }
  } else writeFileSync(target, text);
} finally {
  rmSync(dir, { recursive: true, force: true });
}
