/** Registers that a table can be taken into. */
export const IMPORT_KINDS = ['items', 'filters', 'parts', 'wearers'] as const;
export type ImportKind = (typeof IMPORT_KINDS)[number];
