/** Why who somebody is may be erased. Words of a list, so that no name comes into the log by the way. Common practice. */
export const ERASE_REASONS = ['their own request', 'left the site', 'kept long enough'] as const;
export type EraseReason = (typeof ERASE_REASONS)[number];
