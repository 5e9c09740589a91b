/** Days as they are written here. Making a format takes longer than a page of dates: each is made once. */
const formats = new Map<string, Intl.DateTimeFormat>();

/** `4 Mar`, or with its year `4 Mar 2026`, in a time zone; what is none stays empty. */
export function dayIn(
  timeZone: string,
  at: number | string | Date | null,
  year: 'with year' | 'bare' = 'with year',
): string {
  if (at === null) return '';
  const key = `${timeZone} ${year}`;
  let format = formats.get(key);
  if (!format) {
    format = new Intl.DateTimeFormat('en-GB', {
      ...{ day: 'numeric', month: 'short', timeZone },
      ...(year === 'with year' ? { year: 'numeric' } : {}),
    });
    formats.set(key, format);
  }
  return format.format(new Date(at));
}

/** A date without a time, as 2026-03-04: the same day in every time zone. */
export const calendarDay = (date: string | null, year?: 'with year' | 'bare'): string => dayIn('UTC', date, year);
