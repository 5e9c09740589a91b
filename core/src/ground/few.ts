/** "C1, C2, C3, C4 and 8 more". */
export const few = (names: readonly string[], most = 4): string =>
  names.length > most + 1 ? `${names.slice(0, most).join(', ')} and ${names.length - most} more` : names.join(', ');
