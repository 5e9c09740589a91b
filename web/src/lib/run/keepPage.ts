/** Asks the service worker to keep this run's page for an hour without a server; says whether it is kept. */
export async function keepPage(path: string): Promise<boolean> {
  if (!('serviceWorker' in navigator)) return false;
  const { active } = await navigator.serviceWorker.ready;
  if (!active) return false;
  const { port1, port2 } = new MessageChannel();
  return new Promise((resolve) => {
    port1.onmessage = (event) => resolve(event.data === 'kept');
    active.postMessage({ keep: path }, [port2]);
  });
}
