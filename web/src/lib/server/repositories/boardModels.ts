import { type BoardModel, boardModelSchema } from '@orthos/core/board';
import { contentHash } from '@orthos/core/ground';
import { and, asc, desc, eq, ilike, inArray, isNull, sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import type { Database } from '../db/connect.ts';
import { boardModels, boardVersions, photos, tickets } from '../db/schema.ts';
import { Kept } from '../kept.ts';
import { containing } from './containing.ts';
import { ConflictError } from './conflict.ts';

export type BoardVersion = typeof boardVersions.$inferSelect;

interface NewBoardModel {
  /** Made by the caller; the same id twice changes nothing. */
  id?: string;
  doc: BoardModel;
  field?: string;
  express?: boolean;
  origin?: string;
}

/** Makes a model that has only a draft. */
export async function createBoardDraft(db: Database, { id = v7(), doc, ...rest }: NewBoardModel): Promise<string> {
  await db
    .insert(boardModels)
    .values({ id, name: doc.name, draft: doc, ...rest })
    .onConflictDoNothing();
  return id;
}

/** Makes a model and publishes its first version. */
export async function createBoardModel(
  db: Database,
  model: NewBoardModel,
): Promise<{ modelId: string; versionId: string }> {
  const modelId = await createBoardDraft(db, model);
  const version = await publishBoardModel(db, modelId);
  return { modelId, versionId: version.id };
}

/** Throws a model away that was never published, its photos with it; false when there is none such. */
export async function discardDraft(db: Database, modelId: string): Promise<boolean> {
  return db.transaction(async (tx) => {
    const [version] = await tx
      .select({ id: boardVersions.id })
      .from(boardVersions)
      .where(eq(boardVersions.modelId, modelId))
      .limit(1);
    if (version) return false;
    await tx.delete(photos).where(eq(photos.modelId, modelId));
    const gone = await tx.delete(boardModels).where(eq(boardModels.id, modelId)).returning({ id: boardModels.id });
    return gone.length > 0;
  });
}

/** Replaces the draft; `version` is the one it was edited from. */
export async function saveDraft(db: Database, modelId: string, version: number, draft: BoardModel): Promise<number> {
  const [saved] = await db
    .update(boardModels)
    .set({ draft, name: draft.name, updatedAt: new Date(), version: sql`${boardModels.version} + 1` })
    .where(and(eq(boardModels.id, modelId), eq(boardModels.version, version)))
    .returning({ version: boardModels.version });
  if (!saved) throw new ConflictError('The board model', (await boardModelById(db, modelId))?.draft);
  return saved.version;
}

/** Turns the draft into an immutable version; an unchanged draft gives the last version again. */
export async function publishBoardModel(db: Database, modelId: string): Promise<BoardVersion> {
  return db.transaction(async (tx) => {
    const [model] = await tx.select().from(boardModels).where(eq(boardModels.id, modelId)).for('update');
    if (!model) throw new Error(`No board model ${modelId}`);
    const doc = boardModelSchema.parse(model.draft);
    const hash = contentHash(doc);
    const [last] = await tx
      .select()
      .from(boardVersions)
      .where(eq(boardVersions.modelId, modelId))
      .orderBy(desc(boardVersions.number))
      .limit(1);
    if (last?.hash === hash) return last;
    const [made] = await tx
      .insert(boardVersions)
      .values({ id: v7(), modelId, number: (last?.number ?? 0) + 1, hash, doc })
      .returning();
    if (last && doc.parts.length > 0 && boardModelSchema.parse(last.doc).parts.length === 0)
      // open jobs taken in before anything was placed had nothing to keep
      await tx
        .update(tickets)
        .set({ boardVersionId: made.id })
        .where(and(eq(tickets.boardVersionId, last.id), isNull(tickets.closedAt)));
    return made;
  });
}

/** A model with its draft checked; undefined when there is none. */
export async function boardModelById(db: Database, id: string) {
  const [row] = await db.select().from(boardModels).where(eq(boardModels.id, id));
  return row && { ...row, draft: boardModelSchema.parse(row.draft) };
}

/** The published versions of a model, newest first, with how many jobs are pinned to each. */
export async function versionsOf(db: Database, modelId: string) {
  return db
    .select({
      id: boardVersions.id,
      number: boardVersions.number,
      hash: boardVersions.hash,
      publishedAt: boardVersions.publishedAt,
      jobs: sql<number>`(select count(*)::int from tickets t where t.board_version_id = board_versions.id)`,
    })
    .from(boardVersions)
    .where(eq(boardVersions.modelId, modelId))
    .orderBy(desc(boardVersions.number));
}

/** The version of a model by its number. */
export async function versionByNumber(
  db: Database,
  modelId: string,
  number: number,
): Promise<BoardVersion | undefined> {
  const [row] = await db
    .select()
    .from(boardVersions)
    .where(and(eq(boardVersions.modelId, modelId), eq(boardVersions.number, number)));
  return row && { ...row, doc: boardModelSchema.parse(row.doc) };
}

/** As many as a day's list may be of. */
const published = new Kept<BoardVersion>(450);

/** Published versions by id, their documents checked. */
export async function boardVersionsById(db: Database, ids: Iterable<string>): Promise<Map<string, BoardVersion>> {
  return published.all(ids, async (missing) => {
    const rows = await db.select().from(boardVersions).where(inArray(boardVersions.id, missing));
    return rows.map((row) => [row.id, { ...row, doc: boardModelSchema.parse(row.doc) }]);
  });
}

/** A published version with its document checked; undefined when there is none. */
export async function boardVersionById(db: Database, id: string): Promise<BoardVersion | undefined> {
  return (await boardVersionsById(db, [id])).get(id);
}

export async function latestVersion(db: Database, modelId: string): Promise<BoardVersion | undefined> {
  const [row] = await db
    .select()
    .from(boardVersions)
    .where(eq(boardVersions.modelId, modelId))
    .orderBy(desc(boardVersions.number))
    .limit(1);
  return row && { ...row, doc: boardModelSchema.parse(row.doc) };
}

/** Kinds of board by name alone. */
export async function modelNames(db: Database): Promise<{ id: string; name: string }[]> {
  return db
    .select({ id: boardModels.id, name: boardModels.name })
    .from(boardModels)
    .where(eq(boardModels.express, false))
    .orderBy(asc(boardModels.name));
}

/** Models that people made (not those of express jobs), with their newest version and jobs so far. */
/** Boards whose name contains a text, by name. */
export async function boardModelsNamed(db: Database, text: string, most: number) {
  return db
    .select({ id: boardModels.id, name: boardModels.name })
    .from(boardModels)
    .where(and(eq(boardModels.express, false), ilike(boardModels.name, containing(text))))
    .orderBy(asc(boardModels.name))
    .limit(most);
}

export async function listBoardModels(db: Database) {
  return db
    .select({
      id: boardModels.id,
      name: boardModels.name,
      field: boardModels.field,
      origin: boardModels.origin,
      updatedAt: boardModels.updatedAt,
      parts: sql<number>`jsonb_array_length(${boardModels.draft} -> 'parts')`,
      layers: sql<number>`jsonb_array_length(${boardModels.draft} -> 'stack')`,
      version: sql<number | null>`(select max(v.number) from board_versions v where v.model_id = board_models.id)`,
      jobs: sql<number>`(select count(*)::int from tickets t join boards b on b.id = t.board_id where b.model_id = board_models.id)`,
    })
    .from(boardModels)
    .where(eq(boardModels.express, false))
    .orderBy(asc(boardModels.name));
}
