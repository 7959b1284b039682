/** What keeps an item out of use, the strongest first. */
export const BLOCKS = ['retired', 'in service', 'held', 'in wash', 'issued'] as const;
export type Block = (typeof BLOCKS)[number];
