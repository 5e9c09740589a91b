/**
 * What a kind of phase declares, each in a folder of its own: how it is set, what it needs, why it does not fit, what hands do
 * besides heating, what they are told, what it leaves, what is dangerous and what is uncertain about it. How it drives a run is in `stints.ts`, what
 * hands are told in `words.ts`: whoever only shows a phase does without the physics and the words. A phase *as set* has an id of its own
 * in its procedure, a condition that hands over, and a time after which it is given up.
 */
import type { z } from 'zod';
import type { Composition } from '../../alloys/index.ts';
import type { Operation, SetPoint } from '../handForms.ts';
import type { Dialled, Dials, Panel } from '../dials.ts';
import type { Bench, Want, Wires } from '../kit.ts';
import type { Range } from '../ranges.ts';
import type { StationModel } from '../station.ts';

/** One setting as a form asks for it. */
export interface Field {
  /** Path in the settings. */
  key: string;
  label: string;
  unit?: 'temperature' | 'L/min' | 'mm' | 's' | '×' | 'mm³' | 'W' | '°';
  range?: Range;
  /** The tool on whose dial it is turned. */
  dial?: Dialled;
  /** May be left empty. */
  optional?: true;
  hint?: string;
  /** Choices instead of a number; the first is taken where nothing is said. */
  choices?: readonly (readonly [value: string, name: string])[];
  /** The choices are numbers. */
  numeric?: true;
  /** A composition instead of a number. */
  alloy?: true;
}

export interface Form {
  usual: readonly Field[];
  /** Asked for rarely, and what they are together. */
  more: readonly Field[];
  moreTitle: string;
  /** What is missing from fields that only make sense together, by field. */
  missing?(texts: Readonly<Record<string, string>>): Record<string, string>;
  /** Takes out of settings what is empty, or has lost what gives it sense. */
  tidy?(settings: Record<string, unknown>): void;
}

/** An input that is not known for sure, and what it changes when it is off by `z` times its plus-minus (two standard deviations). */
export interface Uncertain<S> {
  name: string;
  settings?(settings: S, z: number, station: StationModel): Partial<S>;
  station?(station: StationModel, z: number): Partial<StationModel>;
}

export interface Caution {
  steps: readonly (Operation | 'protect')[];
  text: string;
}

/** What the hands and the foot do while it goes on: nobody has a third hand. */
export interface Limbs {
  left: string;
  right: string;
  foot?: string;
}

/** Tools of the bench that count as one another's: going on with the same one takes no time. */
type HandTool = 'air' | 'iron' | 'vacuum' | 'tweezers' | 'below' | 'hand';

/** What comes into the joints of a package, by terminal. */
export type Brought = ReadonlyMap<string, { alloy: Composition; mm3: number }>;

export interface PhaseKind<K extends string, S> {
  kind: K;
  /** For people, where work has several phases. */
  name: string;
  settings: z.ZodType<S>;
  /** What it is done with. */
  tool: HandTool;
  /** What it cannot do without. */
  wants(settings: S, wire: Wires): readonly Want[];
  /** The settings as this bench can be set. */
  onBench?(settings: S, bench: Bench): S;
  limbs(settings: S): Limbs;
  /** The settings in one line. */
  line(settings: S, panel: Panel): string;
  /** How many irons it holds down, and their power, W. */
  irons(settings: S): readonly { power_W: number; set_C: number }[];
  /** Works from the side the part stands on, pins or not. */
  fromAbove: boolean;
  /** Alloy lies from joint to joint. */
  bridges: boolean;
  /** Why it does not fit a package, as a clause; undefined where it does. */
  unfit?(packageId: string): string | undefined;
  /** What it brings into the joints, over what is in them (mm³ of their own solder by terminal). */
  brings?(settings: S, packageId: string, own_mm3: ReadonlyMap<string, number>): Brought;
  /** Joints come loose one after the other, as the tool gets to them. */
  inTurn?: true;
  /** Holes are empty after it. */
  opensHoles?: true;
  /** The hands' own times are in it: a slow hand takes longer. */
  paced?: true;
  /** The part comes onto its lands in it, and was not there before. */
  lays?(settings: S): boolean;
  /** Nothing heats in it: the board cools. */
  cools?(settings: S): boolean;
  /** How long the tools of the phase before it stay on, s. */
  stays_s?(settings: S): number | undefined;
  /** Chance that it tears a land or a way of the part besides what the lift does (judgement, docs/physics/hands.md). */
  tears?(packageId: string, corroded: boolean): number;
  /** Both hands are full until the tools have left: only then can a part of this package be lifted. */
  handsFull?(packageId: string): boolean;
  /** Why the part does not live through it, as a clause. */
  destroys?: string;
  uncertain: readonly Uncertain<S>[];
  /** Tools within reach, and what each is set to. */
  needs(settings: S, dials: Pick<Dials, 'air'>): { tools: string[]; setPoints: SetPoint[] };
  /** Hands' time before it heats, s: tools changed, flux, solder fed (17-hands). */
  change_s: number;
  cautions: readonly Caution[];
  /** What would help where joints stay solid. */
  wayOut: string;
  /** What would help a neighbour it hurts. */
  spare: string;
}

/** Declares a kind, with its settings' type taken from their schema. */
export const definePhase = <K extends string, S>(kind: PhaseKind<K, S>): PhaseKind<K, S> => kind;
