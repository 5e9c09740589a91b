// The list of ways while they are computed: what was asked for is told at once, of the others how they are set.
import { cleanup, configure, render, screen } from '@testing-library/svelte';
import type { Row } from '@orthos/core/compare';
import { type MethodChoice, methodsOn } from '@orthos/core/rework';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { express } from '../planResult.ts';

const { default: Ways } = await import('../../src/lib/plan/Ways.svelte');

configure({ asyncUtilTimeout: 10_000, defaultHidden: true });
beforeEach(() => {
  globalThis.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
});
afterEach(cleanup);

const AIR = ['air-fast', 'air-slow'];
const methods: MethodChoice[] = methodsOn('SOIC-8', {}, { dials: {} }).filter((c) => AIR.includes(c.method.id));
const loose = (id: string) =>
  ({
    id,
    name: id,
    verdict: 'works',
    loose_s: { p5: 30, p50: 40, p95: 60 },
    rounds: 0,
    minutes: 4,
    score: 0.1,
    why: '',
  }) as unknown as Row;
const show = (more: { rows: Record<string, Row>; sure: string[]; settling?: boolean }) =>
  render(Ways, {
    ...{ board: express, methods, bench: '', progress: {}, chosen: 'air-slow', mustLive: false, stale: false },
    weights: { pads: 1, neighbours: 1, part: 1, minutes: 1 },
    units: { temperature: 'C', length: 'mm' },
    ...more,
    sure: new Set(more.sure),
  } as never);
const way = (name: string) => screen.getByRole('radio', { name: new RegExp(name) }).textContent.replaceAll(/\s+/g, ' ');

describe('ways, while they are computed', () => {
  it('tell what is there in full without a sign of estimate, and of the others how they are set', () => {
    show({ rows: { 'air-slow': loose('air-slow') }, sure: ['air-slow'], settling: true });
    expect(way('Air, slow')).toMatch(/works, all loose after about 40 s/);
    expect(way('Air, slow')).not.toContain('≈');
    expect(way('Air, fast')).toMatch(/waiting: \d+ °C/);
  });
  it('mark a first answer as one', () => {
    show({ rows: { 'air-slow': loose('air-slow') }, sure: [], settling: true });
    expect(way('Air, slow')).toMatch(/≈ works, all loose after about 40 s/);
  });
  it('nobody looked at say so', () => {
    show({ rows: {}, sure: [] });
    expect(way('Air, fast')).toMatch(/not looked at yet: \d+ °C/);
  });
});
