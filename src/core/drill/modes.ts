/** learn: why at once. drill: at the end. exam: beside a supervisor, counted. */
export const DRILL_MODES = ['learn', 'drill', 'exam'] as const;
export type DrillMode = (typeof DRILL_MODES)[number];
