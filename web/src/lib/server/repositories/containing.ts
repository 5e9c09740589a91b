/** Pattern of `like` for what contains a text, whatever signs it has. */
export const containing = (text: string): string => `%${text.replace(/[%_\\]/g, '\\$&')}%`;
