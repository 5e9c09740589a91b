/** Pins measured one after the other without power: what the meter said of each is kept at once. */
import type { Recorder } from '$lib/jobs/recorder.svelte';
import type { Key } from '$lib/ui/keys.svelte';
import type { Attempt } from '@orthos/core/job';
import { type JointFinding, judgeProof, type Proof, type ProofReading } from '@orthos/core/prove';

/** What most of a kind say: a track beeps, neighbours are silent. */
const USUAL = { apart: 'silent', through: 'beeps' } as const;

export class PinWalk {
  readonly proofs: readonly Proof[];
  private at = $state(0);
  private readonly given = $state<Record<string, ProofReading>>({});
  private readonly recorder: Recorder;
  private readonly stored: () => Attempt['proven']['proofs'];
  private queue = Promise.resolve();

  constructor(proofs: readonly Proof[], recorder: Recorder, stored: () => Attempt['proven']['proofs']) {
    this.proofs = proofs;
    this.recorder = recorder;
    this.stored = stored;
    this.at = this.first(0);
  }

  readOf({ key }: Proof): ProofReading | undefined {
    return this.given[key] ?? this.stored().get(key)?.read;
  }
  done = $derived.by(() => this.proofs.filter((p) => this.readOf(p) !== undefined).length);
  /** The one that is due, and which joints of the part it is about. */
  due = $derived.by(() => {
    const proof = this.proofs[this.at];
    return proof ? { proof, ends: [proof.terminal, ...(proof.kind === 'apart' ? [proof.to.terminal] : [])] } : null;
  });
  /** Those that are not as they should be, or not clear. */
  off = $derived.by(() =>
    this.proofs.flatMap((proof) => {
      const read = this.readOf(proof);
      const verdict = read && judgeProof(proof, read);
      return verdict && verdict.state !== 'met' ? [{ proof, verdict }] : [];
    }),
  );

  /** What its readings say of a joint; nothing while none was taken. */
  foundOf(terminal: string): { state: JointFinding; to?: string } | undefined {
    const mine = this.proofs.filter((p) => p.terminal === terminal);
    const verdicts = mine.flatMap((p) => {
      const read = this.readOf(p);
      return read ? [{ p, state: judgeProof(p, read).state }] : [];
    });
    const bad = verdicts.find((v) => v.state === 'unmet');
    if (bad) return bad.p.kind === 'apart' ? { state: 'bridge', to: bad.p.to.terminal } : { state: 'open' };
    return verdicts.length > 0 && verdicts.length === mine.length ? { state: 'good' } : undefined;
  }

  say(read: ProofReading): void {
    const proof = this.due?.proof;
    if (!proof) return;
    this.keep(proof, read);
    this.at = this.first(this.at + 1);
  }
  /** What is left of this kind says what it usually says. */
  restUsual(): void {
    const kind = this.due?.proof.kind;
    if (!kind) return;
    for (const p of this.proofs)
      if (p.kind === kind && this.readOf(p) === undefined) this.keep(p, { said: USUAL[kind] });
    this.at = this.first(0);
  }
  go(proof: Proof): void {
    this.at = this.proofs.indexOf(proof);
  }
  goTo(terminal: string): void {
    const own = this.proofs.filter((p) => p.terminal === terminal);
    const to = own.find((p) => this.readOf(p) === undefined) ?? own[0];
    if (to) this.go(to);
  }
  step(by: number): void {
    this.at = (Math.min(this.at, this.proofs.length - 1) + by + this.proofs.length) % this.proofs.length;
  }
  keys(): Key[] {
    const kind = this.due?.proof.kind;
    return [
      ...(kind
        ? [
            {
              keys: [' ', 'g'],
              shown: ['Space'],
              label: USUAL[kind],
              run: () => this.say({ said: USUAL[kind] }),
              line: true,
            },
            {
              keys: ['n'],
              label: kind === 'apart' ? 'beeps' : 'silent',
              run: () => this.say({ said: kind === 'apart' ? 'beeps' : 'silent' }),
              line: true,
            },
          ]
        : []),
      {
        keys: ['ArrowLeft', 'ArrowRight'],
        label: 'to another',
        run: (key: string) => this.step(key === 'ArrowRight' ? 1 : -1),
        line: true,
      },
    ];
  }

  private first(from: number): number {
    const open = (p: Proof) => this.readOf(p) === undefined;
    const after = this.proofs.findIndex((p, n) => n >= from && open(p));
    const any = after >= 0 ? after : this.proofs.findIndex(open);
    return any >= 0 ? any : this.proofs.length;
  }
  private keep(proof: Proof, read: ProofReading): void {
    const { kind, terminal, to, key } = proof;
    this.given[key] = read;
    this.queue = this.queue.then(async () => {
      if (!(await this.recorder.record({ type: 'proved', kind, terminal, to, read }))) delete this.given[key];
    });
  }
}
