/** What a place is. */
export const PLACE_KINDS = ['room', 'store', 'vehicle'] as const;
export type PlaceKind = (typeof PLACE_KINDS)[number];

/** What storing gives that keeps rubber and filters. Common practice: dry, dark, cool, clean, shut. */
export const STORAGE_TRAITS = ['dry', 'dark', 'cool', 'clean', 'shut'] as const;
export type StorageTrait = (typeof STORAGE_TRAITS)[number];

/** Whose an item is. */
export const USE_PATTERNS = ['personal', 'shared', 'emergency'] as const;
export type UsePattern = (typeof USE_PATTERNS)[number];

/** What a test house is sent. */
export const TEST_HOUSE_WORK = ['cylinders', 'sets', 'suits', 'instruments'] as const;
export type TestHouseWork = (typeof TEST_HOUSE_WORK)[number];
