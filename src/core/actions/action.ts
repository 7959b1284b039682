import type { z } from 'zod';

/** What something that is recorded was done to; with its id it is the subject of the entry. */
export type SubjectKind =
	| 'account'
	| 'air-source'
	| 'backup'
	| 'batch'
	| 'bench'
	| 'cluster'
	| 'container'
	| 'defect'
	| 'drill'
	| 'entry'
	| 'fill'
	| 'fill-panel'
	| 'filter-lot'
	| 'filter-model'
	| 'import'
	| 'item'
	| 'job'
	| 'model'
	| 'muster'
	| 'pair'
	| 'plan'
	| 'procedure'
	| 'recall'
	| 'rule'
	| 'run'
	| 'seal'
	| 'place'
	| 'site'
	| 'substance'
	| 'test-house'
	| 'part'
	| 'wearer'
	| 'authorisation'
	| 'work-plan';

/** A thing that an entry leads to. */
export interface ActionLink {
	to: SubjectKind;
	id: string;
	/** What it is called where its kind does not say enough. */
	words?: string;
}

/** What is never changed once it is whole, and is kept with a hash of all that belongs to it. */
export const RECORD_KINDS = ['inspection', 'repair', 'plan edition', 'bench test'] as const;
export type RecordKind = (typeof RECORD_KINDS)[number];

/** One kind of thing that is recorded: what is kept of it, what it was done to, and how it reads. */
export interface Action<S extends z.ZodType = z.ZodType> {
	/** What the entry holds beside who, when and to which item. */
	payload: S;
	subject: SubjectKind;
	/** The entry as a sentence for people, dates as 24 Nov 2026. */
	says: (payload: z.output<S>) => string;
	/** What else it leads to, beside its subject. */
	links?: (payload: z.output<S>) => ActionLink[];
	/** What its person does by it: they show first that it is them. */
	signs?: string;
	/** The record that is whole with it: its hash goes into the entry. */
	keeps?: RecordKind;
	/** A step on the way to something that is recorded whole: left out of histories unless all is asked for. */
	detail?: boolean;
}

/** Declares an action with the types of its payload. */
export const action = <S extends z.ZodType>(declared: Action<S>): Action<S> => declared;
