/** Foil to be cut, as files to print 1:1. */
import { send } from '$lib/jobs/send';

export type FoilFile = 'svg' | 'pdf';

/** Has a sheet drawn by a calculation, and saves it under a name. */
export async function printFoil(
  calc: 'protect.foil' | 'protect.cover',
  input: object,
  name: string,
  as: FoilFile,
): Promise<void> {
  const made = (await send('POST', `/api/calc/${calc}`, input)) as { svg: string; pdf_base64: string };
  const file =
    as === 'svg'
      ? new Blob([made.svg], { type: 'image/svg+xml' })
      : new Blob([Uint8Array.from(atob(made.pdf_base64), (c) => c.charCodeAt(0))], { type: 'application/pdf' });
  const url = URL.createObjectURL(file);
  const link = document.createElement('a');
  link.href = url;
  link.download = `${name}.${as}`;
  link.click();
  URL.revokeObjectURL(url);
}
