/** First power as the server tells it, line by line, and as it is read here. */
import { SendError } from '$lib/jobs/send';
import type { PowerSample, PowerStage, Stop } from '@orthos/core/job';

interface Ended {
  /** `passed`, or what stopped it. */
  end: 'passed' | { stop: Stop; why: string; at_s: number };
  supply: string;
  simulated?: true;
}
export type FirstPowerLine = ({ stage: PowerStage['stage'] } & PowerSample) | Ended | { trouble: string };

/** Runs it; every reading is told as it comes. Aborting `signal` switches the output off. Throws `SendError` with a sentence. */
export async function runFirstPower(
  ticketId: string,
  body: { volts: number; watch?: { net: string; volts: number } },
  tell: (sample: { stage: PowerStage['stage'] } & PowerSample) => void,
  signal: AbortSignal,
): Promise<Ended> {
  const answer = await fetch(`/api/jobs/${ticketId}/first-power`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
    signal,
  }).catch(() => {
    throw new SendError(0, 'The server does not answer. Take the leads off by hand.');
  });
  if (!answer.ok || !answer.body) {
    const { message } = (await answer.json().catch(() => ({}))) as { message?: string };
    throw new SendError(answer.status, message ?? 'The server refused it.');
  }
  const reader = answer.body.pipeThrough(new TextDecoderStream()).getReader();
  let text = '';
  for (;;) {
    const { done, value } = await reader.read();
    if (done) throw new SendError(0, 'The supply was lost in the middle. Take the leads off by hand.');
    text += value;
    const lines = text.split('\n');
    text = lines.pop() ?? '';
    for (const line of lines) {
      const said = JSON.parse(line) as FirstPowerLine;
      if ('trouble' in said) throw new SendError(502, said.trouble);
      if ('end' in said) return said;
      tell(said);
    }
  }
}
