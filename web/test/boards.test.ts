import { blankBoard } from '@orthos/core/board';
import { type CopperDrawing, copperDrawingSchema } from '@orthos/core/copper';
import { textHash } from '@orthos/core/ground';
import { importBoard } from '@orthos/formats';
import { gzipSync } from 'node:zlib';
import { v7 } from 'uuid';
import { describe, expect, it } from 'vitest';
import { gantry } from '../src/lib/server/demo/gantry.ts';
import { checkDrawing, DrawingError } from '../src/lib/server/checkDrawing.ts';
import { addDrawing, drawingGzip } from '../src/lib/server/repositories/boardDrawings.ts';
import {
  boardModelById,
  createBoardDraft,
  createBoardModel,
  discardDraft,
  listBoardModels,
  publishBoardModel,
  saveDraft,
  versionByNumber,
  versionsOf,
} from '../src/lib/server/repositories/boardModels.ts';
import { ConflictError } from '../src/lib/server/repositories/conflict.ts';
import { addOwnPackage, listOwnPackages, removeOwnPackage } from '../src/lib/server/repositories/ownPackages.ts';
import { addPhoto, pictureOf, removePhoto } from '../src/lib/server/repositories/photos.ts';
import { createTicket, ticketById } from '../src/lib/server/repositories/tickets.ts';
import { batchCopper } from '../src/lib/stage/painter.ts';
import { testDatabase } from './database.ts';

const { db } = testDatabase();
const doc = blankBoard('Heron', 60, 40, 2, 1.6);

describe('drafts and versions', () => {
  it('a draft alone is listed without a version and can be published later', async () => {
    const id = await createBoardDraft(db(), { doc, origin: 'traced' });
    const row = async () => (await listBoardModels(db())).find((m) => m.id === id);
    expect(await row()).toMatchObject({ version: null, origin: 'traced', parts: 0 });
    await publishBoardModel(db(), id);
    expect(await row()).toMatchObject({ version: 1 });
    // the same id again, as a repeated request would send it, changes nothing
    await createBoardDraft(db(), { id, doc: { ...doc, name: 'Other' } });
    expect((await boardModelById(db(), id))?.name).toBe('Heron');
  });
  it('a draft can be thrown away, a published model cannot', async () => {
    const draft = await createBoardDraft(db(), { doc });
    await addPhoto(db(), {
      id: v7(),
      modelId: draft,
      width: 10,
      height: 10,
      image: Buffer.from('x'),
      thumbnail: Buffer.from('x'),
    });
    expect(await discardDraft(db(), draft)).toBe(true);
    expect(await boardModelById(db(), draft)).toBeUndefined();
    expect(await discardDraft(db(), draft)).toBe(false);
    const { modelId } = await createBoardModel(db(), { doc });
    expect(await discardDraft(db(), modelId)).toBe(false);
    expect(await boardModelById(db(), modelId)).toBeDefined();
  });
  it('a stale draft meets what is stored; a job keeps its version whatever is edited', async () => {
    const { modelId, versionId } = await createBoardModel(db(), { doc });
    const { id } = await createTicket(db(), {
      kind: 'repair',
      customer: 'Ada Marsh',
      device: 'lamp',
      complaint: 'dark',
      modelId,
      boardVersionId: versionId,
    });
    await saveDraft(db(), modelId, 1, { ...doc, thickness_mm: 1 });
    await expect(saveDraft(db(), modelId, 1, { ...doc, thickness_mm: 2 })).rejects.toThrow(ConflictError);
    await publishBoardModel(db(), modelId);
    expect((await versionsOf(db(), modelId)).map((v) => [v.number, v.jobs])).toEqual([
      [2, 0],
      [1, 1],
    ]);
    expect((await ticketById(db(), id))?.ticket.boardVersionId).toBe(versionId);
    expect((await versionByNumber(db(), modelId, 1))?.doc.thickness_mm).toBe(1.6);
    expect(await versionByNumber(db(), modelId, 9)).toBeUndefined();
  });
});

describe('copper drawings', () => {
  const drawing: CopperDrawing = {
    v: 1,
    nets: ['GND'],
    layers: [{ name: 'top', shapes: [{ k: 'disc', n: 0, x: 1, y: 2, d: 3 }] }],
  };
  const text = JSON.stringify(drawing);
  it('are kept by the hash of their text, once', async () => {
    for (let n = 0; n < 2; n++) await addDrawing(db(), textHash(text), gzipSync(text));
    expect(await drawingGzip(db(), textHash(text))).toEqual(gzipSync(text));
    expect(await drawingGzip(db(), 'f'.repeat(64))).toBeUndefined();
  });
  it.each([
    ['another hash', 'a'.repeat(64), gzipSync(text), /not the one/],
    ['no gzip', textHash(text), Buffer.from(text), /No gzip/],
    ['no JSON', textHash('hello'), gzipSync('hello'), /not JSON/],
    ['another form', textHash('{"v":1,"nets":[]}'), gzipSync('{"v":1,"nets":[]}'), /layers/],
    ['a bomb', 'a'.repeat(64), gzipSync(Buffer.alloc(160_000_000)), /at most 150 MB/],
  ])('refuse %s', async (_, hash, bytes, message) => {
    expect(() => checkDrawing(hash, bytes)).toThrow(DrawingError);
    expect(() => checkDrawing(hash, bytes)).toThrow(message);
  });
});

describe('own packages', () => {
  it('have one name each and can go without hurting boards', async () => {
    expect(await addOwnPackage(db(), 'odd ten', 'gull-rows:pins=10,w=6.2')).toBe(true);
    expect(await addOwnPackage(db(), 'odd ten', 'gull-rows:pins=12,w=8')).toBe(false);
    const [own] = await listOwnPackages(db());
    await removeOwnPackage(db(), own.id);
    expect(await listOwnPackages(db())).toEqual([]);
  });
});

describe('photos under a board', () => {
  it('stay: versions name them', async () => {
    const { modelId } = await createBoardModel(db(), { doc });
    const id = v7();
    const picture = Buffer.from('picture');
    await addPhoto(db(), { id, modelId, width: 10, height: 10, image: picture, thumbnail: picture });
    expect(await removePhoto(db(), id)).toBe(false);
    expect(await pictureOf(db(), id, 'image')).toEqual(picture);
  });
});

describe('the demo board that comes from a file', () => {
  it('has its copper, its nets and what a technician added', () => {
    const { doc: board, drawingText } = gantry();
    expect(textHash(drawingText)).toBe(board.drawing);
    const drawing = copperDrawingSchema.parse(JSON.parse(drawingText));
    expect(drawing.layers).toHaveLength(6);
    expect(board.stack.every((s) => s.foil_um === 70 && s.coverage > 0.1)).toBe(true);
    expect(board.parts.find((p) => p.ref === 'Q1')?.nets).toEqual({ '1': 'GATE_H', '3': 'PHASE', TAB: 'BUS' });
    expect(board.coverage).toHaveLength(6);
  });
});

describe('copper on the stage', () => {
  const disc = (x: number, e?: 1) => ({ k: 'disc' as const, n: 0, x, y: 0, d: 1, ...(e ? { e } : {}) });
  const line = (w: number) => ({ k: 'line' as const, n: 0, w, p: [0, 0, 5, 5] });
  it('groups equal strokes, keeps the order where copper is taken away', () => {
    expect(batchCopper([line(0.2), disc(1), line(0.2), line(0.5)], 'track').map((b) => b.stroke_mm)).toEqual([
      0.2,
      0.5,
      undefined,
    ]);
    expect(batchCopper([disc(1), disc(2, 1), disc(3)], 'track').map((b) => b.style)).toEqual([
      'track',
      'bare',
      'track',
    ]);
    expect(batchCopper([], 'lit')).toEqual([]);
  });
  it('makes few batches of a large board, each with its box', () => {
    const shapes = Array.from({ length: 100_000 }, (_, i) => ({ ...line(0.2), p: [i % 300, 0, (i % 300) + 1, 1] }));
    const batches = batchCopper(shapes, 'track');
    expect(batches.length).toBeLessThan(2000);
    expect(batches.every((b) => b.box.x1 > b.box.x0)).toBe(true);
  });
  it('areas with holes stand alone', () => {
    const square = [0, 0, 4, 0, 4, 4, 0, 4];
    const [holed, plain] = batchCopper(
      [
        { k: 'area', n: -1, r: [square, [1, 1, 2, 1, 2, 2]] },
        { k: 'area', n: -1, r: [square] },
        { k: 'area', n: -1, r: [square] },
      ],
      'track',
    ).sort((a, b) => Number(b.evenOdd ?? false) - Number(a.evenOdd ?? false));
    expect([holed.evenOdd, plain.evenOdd]).toEqual([true, undefined]);
  });
});

describe('our own file', () => {
  it('holds an imported board whole', async () => {
    const { readBoardJson, writeBoardJson } = await import('@orthos/formats');
    const { doc: board } = gantry();
    expect(readBoardJson(writeBoardJson(board))).toEqual(board);
    const back = importBoard([{ name: 'x', bytes: new TextEncoder().encode(writeBoardJson(board)) }]);
    expect(back.board.parts).toEqual(board.parts);
    expect(back.board.coverage).toEqual(board.coverage);
  });
});
