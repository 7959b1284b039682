import { SEAL_SCHOOLS, type SealSchool, SET_SCHOOLS, type SetSchool } from './choices.ts';

/** One way of doing something about which practitioners differ. */
export interface School<K extends string> {
	key: K;
	name: string;
	/** What a site does by it. */
	does: string;
}

/** A question that practitioners answer differently, with the answers; the first is the stricter one. */
export interface SchoolQuestion<K extends string = string> {
	key: 'sealWays' | 'setSchool';
	question: string;
	schools: readonly School<K>[];
}

const SEAL: Record<SealSchool, Omit<School<SealSchool>, 'key'>> = {
	both: {
		name: 'both ways',
		does: 'Breathing in and breathing out, one after the other, wherever the model allows both. A leak that one way hides shows in the other.'
	},
	one: {
		name: 'one of the two',
		does: 'Either way is enough. Quicker at the door; some leaks show one way only.'
	}
};
const SET: Record<SetSchool, Omit<School<SetSchool>, 'key'>> = {
	either: {
		name: 'both lists',
		does: 'Whoever inspects a set chooses between the bench and worn. Both begin with the one-minute hold.'
	},
	bench: {
		name: 'on the bench',
		does: 'Leak and warning by venting through the covered outlet. Nobody breathes from a set that may fail.'
	},
	worn: {
		name: 'worn',
		does: 'Leak and warning by breathing down with the cylinder closed. The demand valve is tried as it is used.'
	}
};

/** What a site may choose about which there is more than one school. Common practice. */
export const SCHOOL_QUESTIONS: readonly SchoolQuestion[] = [
	{
		key: 'sealWays',
		question: 'How many ways is a seal checked?',
		schools: SEAL_SCHOOLS.map((key) => ({ key, ...SEAL[key] }))
	},
	{
		key: 'setSchool',
		question: 'How are the leak and the warning of a breathing-apparatus set looked at?',
		schools: SET_SCHOOLS.map((key) => ({ key, ...SET[key] }))
	}
];

/** Questions whose answer belongs to the model, the rule pack or nobody: where it is set, and what the other school does. */
export const SETTLED_QUESTIONS = [
	{
		question: 'In which order are the straps pulled?',
		where:
			'On the donning card of each model: lowest pair first, top first, or middle first as its maker says.'
	},
	{
		question: 'How long is a seal check held?',
		where: '10 s, and per model on its donning card; others hold 5 s or “a moment”.'
	},
	{
		question: 'How hot is the wash?',
		where: 'The lower of 43 °C (US regulation) and what the model says; some makers allow 49 °C.'
	},
	{
		question: 'Is a qualitative fit test enough for a full-face mask?',
		where: 'By the rule set: up to factor 10 under the US one, not at all under the UK and EU one.'
	},
	{
		question: 'Whose protection factors hold?',
		where: 'Those of the rule set; where the other one differs, a plan shows both.'
	},
	{
		question: 'When is a filter changed?',
		where:
			'At the earliest of all that apply: schedule, resistance, damage, months after opening. Others wait for a smell; here that is the last alarm.'
	},
	{
		question: 'How is a suit pressed?',
		where:
			'By the recipe of its model: 1650 Pa for 6 min, 4 in. of water for 4 min, or 2 in. for 3 min.'
	},
	{
		question: 'Which way does a mask come off?',
		where: 'Down and away, the outer face never towards the wearer; per model.'
	}
] as const;
