/** The LIKE pattern of what holds this text anywhere; a typed %, _ or \ stands for itself. */
export const containing = (text: string): string => `%${text.replaceAll(/[%_\\]/g, '\\$&')}%`;
