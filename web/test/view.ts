import type { BoardModel } from '@orthos/core/board';
import { ANY_SUPPLIES } from '@orthos/core/hands';
import { foldJob, type JobEvent, judgeGates, modelHistory } from '@orthos/core/job';
import { DEFAULT_STATION, methodsFor } from '@orthos/core/rework';
import { leadWasUsed } from '../src/lib/server/jobs/lead.ts';
import type { DiagnoseView } from '../src/lib/diagnose/view.ts';

/** A job as its pages get it, with what diagnosis knows besides: made from a board, a target and a log alone. */
export function viewOf(board: BoardModel, target: string | undefined, events: JobEvent[] = []): DiagnoseView {
  const part = board.parts.find((p) => p.partId === target);
  const methods = part ? methodsFor(part.package) : [];
  const gates = judgeGates(foldJob(events), {
    complaint: 'dead',
    type: 'repair',
    powerSources: board.powerSources,
    planFresh: null,
    hotNeighbours: null,
    layOut: null,
    rails: board.rails ?? [],
    loads: board.loads ?? [],
    terminals: null,
    targetPolarised: null,
    drawnMark: null,
    mayHold: [],
    ...{ legs: [], proofs: [], atRisk: null },
  });
  return {
    ticket: {
      id: '01990000-0000-7000-8000-000000000001',
      number: 117,
      kind: 'repair',
      boardVersionId: 'v',
      boardId: 'b',
      device: 'Tern T2 display',
      complaint: 'dead since Sunday',
      inBox: '',
      waitsFor: '',
      promisedOn: null,
      createdAt: Date.parse('2026-03-02T09:00:00Z'),
      closedAt: null,
      version: 1,
    },
    customer: { name: 'Marla Quay', contact: '' },
    serial: 'T2-1',
    board,
    drawn_mm: board.thickness_mm,
    boardVersion: { id: 'v', number: 1, hash: 'x' },
    events,
    gates,
    step: 'intake',
    inputs: part
      ? {
          target: part.partId,
          settings: { v: 2, stationId: 's', ironId: 'i', ambient_C: 22, methods: methods.map((m) => m.method) },
          kit: { station: { ...DEFAULT_STATION, id: 's', name: 'station' }, iron: { id: 'i', name: 'iron' } },
          station: DEFAULT_STATION,
          methods,
          fits: methodsFor(part.package, {}, 'fit'),
          fitBy: null,
          edited: [],
          free: {},
          bench: { name: '', names: [], covers: null, below: null, fixtures: null, supplies: ANY_SUPPLIES },
          panel: { temperature: 'C', length: 'mm' },
          flood: 'leaded',
          hash: 'h',
          setHash: 's',
        }
      : null,
    plan: null,
    freshness: null,
    inUse: null,
    layOut: null,
    hotNeighbours: [],
    leadUsed: leadWasUsed(foldJob(events), part?.package, 'leaded'),
    photos: [],
    modelId: '0195f000-0000-7000-8000-0000000000aa',
    circuits: [],
    goodReadings: [],
    history: modelHistory([]),
    goodStartUps: [],
    routines: [],
    meters: [],
    reopenings: { earlier: null, later: [] },
  };
}
