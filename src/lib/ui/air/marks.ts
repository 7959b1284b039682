import type { SourceState } from '$core/air/source';

/** The mark that stands for whether air is given out. */
export const SOURCE_MARKS: Record<SourceState['outcome'], 'good' | 'reject' | 'overdue' | 'due'> = {
	'in force': 'good',
	failed: 'reject',
	overdue: 'overdue',
	untested: 'due'
};
