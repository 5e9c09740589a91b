/** One job as its pages see it: everything of it at once. */
import { standsAt } from '@orthos/core';
import { error } from '@sveltejs/kit';
import type { Database } from '../db/connect.ts';
import { circuitsOf } from '../repositories/circuits.ts';
import { goodReadingsOf } from '../repositories/goodReadings.ts';
import { goodStartUpsOf } from '../repositories/goodStartUps.ts';
import { listMeters } from '../repositories/meters.ts';
import { photosOf } from '../repositories/photos.ts';
import { routinesOf } from '../repositories/routines.ts';
import { reopeningsOf, ticketById } from '../repositories/tickets.ts';
import { standingOf } from './standing.ts';

/** Loads the whole view; 404 when there is no such job. */
export async function jobView(db: Database, id: string) {
  const found = await ticketById(db, id);
  if (!found) error(404, 'There is no such job.');
  const { ticket, customer, serial, modelId } = found;
  const { version, log, state, ...standing } = await standingOf(db, found);
  const [circuits, goodReadings, goodStartUps, routines, meters, photos, reopenings] = await Promise.all([
    circuitsOf(db, modelId),
    goodReadingsOf(db, modelId),
    goodStartUpsOf(db, modelId),
    routinesOf(db, modelId),
    listMeters(db),
    photosOf(db, id),
    reopeningsOf(db, ticket),
  ]);
  return {
    ticket,
    customer,
    serial,
    board: version.doc,
    boardVersion: { number: version.number, hash: version.hash },
    events: [...log.events],
    step: standsAt(state, ticket.kind),
    ...standing,
    modelId,
    /** Circuits drawn for this kind of board, what good boards of it read and draw, the shop's routines for it. */
    circuits,
    goodReadings,
    goodStartUps,
    routines,
    /** Meters of the kit: what they and their leads add to a reading. */
    meters,
    photos,
    reopenings,
  };
}
export type JobView = Awaited<ReturnType<typeof jobView>>;
