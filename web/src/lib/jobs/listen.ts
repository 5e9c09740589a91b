/** A page that shows a job hears of what other windows and browsers write to it. */

/** Several marks at once are one look, ms. */
const GATHER_MS = 250;

/**
 * Calls `look` soon after something of the job was written that the page does not know of. Gives back how to stop.
 * @param knows whether the page has what was written: a row by its id, the ticket by its version
 */
export function listenTo(ticketId: string, knows: (what: string) => boolean, look: () => Promise<void>): () => void {
  const heard = new Set<string>();
  let source: EventSource | undefined;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const gather = async () => {
    timer = undefined;
    const strange = [...heard].some((what) => what === '' || !knows(what));
    heard.clear();
    if (strange) await look().catch(() => undefined);
  };
  const hear = (what: string) => {
    heard.add(what);
    timer ??= setTimeout(() => void gather(), GATHER_MS);
  };
  // a browser holds few connections: a window that nobody sees keeps none, and looks when it is seen again
  const open = () => {
    if (source || document.hidden) return;
    source = new EventSource(`/api/jobs/${ticketId}/news`);
    source.onmessage = ({ data }) => hear(String(data));
  };
  const close = () => {
    source?.close();
    source = undefined;
  };
  const turn = () => {
    if (document.hidden) return close();
    open();
    hear('');
  };
  open();
  document.addEventListener('visibilitychange', turn);
  return () => {
    document.removeEventListener('visibilitychange', turn);
    close();
    clearTimeout(timer);
  };
}
