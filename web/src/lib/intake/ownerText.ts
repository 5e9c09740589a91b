/** What the owner is written: what was found, what it costs in tiers, what happens without an answer. */
import { nameOf } from '$lib/jobs/nameOf';
import type { JobView } from '$lib/jobs/view';
import { currentAttempt, expectedMinutes, type JobState, setProgress } from '@orthos/core/job';
import { formatMoney } from './money';

const WHEN = (minutes: number): string =>
  minutes < 90 ? `about ${Math.round(minutes / 5) * 5} minutes` : `about ${Math.round(minutes / 30) / 2} hours`;

function found({ board }: JobView, job: JobState): string[] {
  const set = setProgress(job);
  const suspect = set ? undefined : currentAttempt(job).suspect;
  const part = suspect && board.parts.find((p) => p.partId === suspect.partId);
  const damage = job.intake.damage.filter((d) => d.whose === 'found');
  return [
    suspect ? `The fault is at ${[nameOf(board, suspect.partId), part?.what].filter(Boolean).join(', ')}.` : '',
    set && set.parts.length === 1 ? `${nameOf(board, set.parts[0].item.partId)} is to be renewed.` : '',
    set && set.parts.length !== 1 ? `${set.parts.length} parts are to be renewed.` : '',
    !suspect && !set && job.readings.length > 0 ? 'It has been measured; the part at fault is not sure yet.' : '',
    damage.length > 0 ? `Already there when it came in: ${[...new Set(damage.map((d) => d.kind))].join(', ')}.` : '',
  ].filter(Boolean);
}

/** Plain text for a message; the photos go with it as files. */
export function ownerText(view: JobView, job: JobState): string {
  const { ticket, customer } = view;
  const { offer, warranty } = job.intake;
  const tiers = (offer?.tiers ?? []).map(
    (t, n) =>
      `${n + 1}. ${t.label}: ${formatMoney(t.price_minor, offer?.currency ?? 'EUR')}, ${WHEN(expectedMinutes(t))} of work`,
  );
  return [
    `${customer.name ? `${customer.name}, ` : ''}your ${ticket.device} (No. ${ticket.number}): ${ticket.complaint}`,
    '',
    ...found(view, job),
    ...(tiers.length > 0
      ? [
          '',
          'What can be done:',
          ...tiers,
          '',
          tiers.length > 1 ? 'Answer with the number, please, or call.' : 'Answer yes or no, please, or call.',
        ]
      : ['', 'No price is named yet.']),
    ...(warranty ? [`Warranty: ${warranty.months} months, ${warranty.terms}`] : []),
    'Nothing is done before you answer.',
  ].join('\n');
}
