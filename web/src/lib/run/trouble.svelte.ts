/** What a hold of the pedal opens: something is wrong. A tap goes to the next choice, another hold takes it. */
import type { JobView } from '$lib/jobs/view';
import { type Composition, writeComposition } from '@orthos/core/alloys';
import { partName } from '@orthos/core/board';
import { SLIP_KINDS, type SlipKind, SLIPS } from '@orthos/core/hands';
import type { JobEventBody, JointMark } from '@orthos/core/job';
import { type Instruction, kindOf, type Operation, type Phase, type Words } from '@orthos/core/rework';

interface Choice {
  label: string;
  detail?: string;
  /** Its key; its number without one. */
  key?: string;
  choose: () => void;
}
interface Sheet {
  title: string;
  words?: Words;
  choices: Choice[];
}

/** The run it is about, and what may come of it. */
export interface Hands {
  view: JobView;
  op: Operation;
  runId: string | undefined;
  /** The instruction due, its phase, and the joint whose turn it is. */
  due: Instruction | null;
  phase: Phase | undefined;
  joint: string | null;
  hot: boolean;
  /** Writes an event, and says its id. */
  put(body: JobEventBody): string;
  walk(state: JointMark): void;
  oneHolds(): void;
  otherAlloy(alloy: Composition): void;
  end(outcome: 'finished' | 'given up'): void;
}

/** What cannot go wrong while a part goes on, or comes off. */
const NOT_IN: Partial<Record<Operation, readonly SlipKind[]>> = {
  remove: ['tilted'],
  prepare: ['tilted'],
  fit: ['not-coming-off', 'wrong-part'],
};
/** So many parts round the target may have been taken for it. */
const NEAREST = 6;

export class Trouble {
  sheet = $state.raw<Sheet | null>(null);
  highlighted = $state(0);
  private readonly hands: () => Hands;
  constructor(hands: () => Hands) {
    this.hands = hands;
  }

  next(): void {
    if (this.sheet) this.highlighted = (this.highlighted + 1) % this.sheet.choices.length;
  }
  take(): void {
    this.sheet?.choices[this.highlighted].choose();
  }
  close(): void {
    this.sheet = null;
  }

  private open(sheet: Sheet): void {
    this.highlighted = 0;
    this.sheet = sheet;
  }
  /** A choice that closes the sheet. */
  private then(label: string, act: () => void, detail?: string): Choice {
    const choose = () => {
      this.close();
      act();
    };
    return { label, ...(detail ? { detail } : {}), choose };
  }

  ask(): void {
    const hands = this.hands();
    const slips = SLIP_KINDS.filter((kind) => !NOT_IN[hands.op]?.includes(kind)).map((kind) => ({
      label: SLIPS[kind].label,
      choose: () => (kind === 'wrong-part' ? this.askWhich() : this.slip(kind)),
    }));
    this.open({
      title: 'What is wrong?',
      choices: [
        ...this.ofNow(hands),
        ...slips,
        { ...this.then('Finished, no more marks', () => hands.end('finished')), key: 'f' },
        {
          ...this.then('Give up here', () => hands.end('given up'), 'change the method or come back later'),
          key: 'g',
        },
        { ...this.then('Nothing, go on', () => undefined), key: '0' },
      ],
    });
  }

  /** What may be wrong at the instruction that is due, so that one pedal is enough for it. */
  private ofNow({ joint, due, phase, hot, walk, oneHolds }: Hands): Choice[] {
    if (joint)
      return [
        this.then(`${joint} stays stuck`, () => walk('stuck')),
        this.then(`Skip ${joint}`, () => walk('skipped')),
      ];
    if (due?.tries) return [this.then('One holds', oneHolds)];
    if (phase && kindOf(phase).brings && !hot)
      return [{ label: 'Another alloy than planned', choose: () => this.askAlloy(phase) }];
    return [];
  }

  private askAlloy(phase: Phase): void {
    const { view, otherAlloy } = this.hands();
    const planned = 'alloy' in phase.settings && phase.settings.alloy ? writeComposition(phase.settings.alloy) : '';
    const names = new Map((view.inputs?.bench.supplies.wires ?? []).map((wt) => [writeComposition(wt), wt]));
    const others = [...names].filter(([name]) => name !== planned).slice(0, 8);
    this.open({
      title: 'Which alloy is it?',
      choices: [
        ...others.map(([name, wt]) => this.then(name, () => otherAlloy(wt))),
        this.then('As planned', () => undefined),
      ],
    });
  }

  /** Which part came off by mistake: the target's neighbours, the nearest first. */
  private askWhich(): void {
    const { board, inputs } = this.hands().view;
    const target = board.parts.find((p) => p.partId === inputs?.target);
    const far = (p: { x_mm: number; y_mm: number }) =>
      target ? Math.hypot(p.x_mm - target.x_mm, p.y_mm - target.y_mm) : 0;
    const near = board.parts.filter((p) => p !== target).sort((a, b) => far(a) - far(b));
    this.open({
      title: 'Which part came off?',
      choices: [
        ...near.slice(0, NEAREST).map((p) => ({
          label: partName(p),
          choose: () => this.slip('wrong-part', p.partId),
        })),
        { label: 'Another one', choose: () => this.slip('wrong-part') },
      ],
    });
  }

  private slip(kind: SlipKind, partId?: string): void {
    const { put, runId } = this.hands();
    const slipId = put({ type: 'slip', kind, ...(runId ? { runId } : {}), ...(partId ? { partId } : {}) });
    const checked = (label: string, ok: boolean, result: string) =>
      this.then(label, () => put({ type: 'slip-checked', slipId, ok, result }));
    this.open({
      title: SLIPS[kind].label,
      words: { say: SLIPS[kind].now, watch: SLIPS[kind].check },
      choices: [
        // first, so that a pedal held too long claims nothing
        this.then('Check it later', () => undefined, 'stays open until Verify'),
        checked(kind === 'wrong-part' ? 'Back on, and checked' : 'Checked, all right', true, 'all right'),
        checked('Checked, damage found', false, 'damage found'),
      ],
    });
  }
}
