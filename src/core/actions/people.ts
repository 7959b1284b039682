import { z } from 'zod';
import { CHANGE_WORDS, FACE_CHANGES, FIT_METHODS } from '../people/fit-standing.ts';
import { shownFactor } from '../fit/fit-factor.ts';
import { readable } from '../plan/calendar.ts';
import { action } from './action.ts';

/** A wearer stands in the log as a number, so that who it was can be erased and the log still proves. */
const numbered = z.object({ number: z.string() });

/** Wearers and their fit. */
export const PEOPLE_ACTIONS = {
	'wearer.added': action({
		subject: 'wearer',
		payload: numbered,
		says: (p) => `Wearer ${p.number} taken into the register`
	}),
	'wearer.changed': action({
		subject: 'wearer',
		payload: numbered,
		says: (p) => `What is kept of wearer ${p.number} was changed`
	}),
	'wearer.change-reported': action({
		subject: 'wearer',
		payload: numbered.extend({ what: z.enum(FACE_CHANGES) }),
		says: (p) => `Wearer ${p.number}: ${CHANGE_WORDS[p.what]} reported. Fit tests before it ended`
	}),
	'fit-test.signed': action({
		subject: 'wearer',
		payload: numbered.extend({
			model: z.string(),
			size: z.string(),
			method: z.enum(FIT_METHODS),
			passed: z.boolean(),
			overall: z.number().nullable(),
			on: z.string()
		}),
		signs: 'sign the fit test',
		says: (p) =>
			`Fit test of wearer ${p.number} with ${p.model}, size ${p.size}, on ${readable(p.on)}: ${p.passed ? 'passed' : 'not passed'}${p.overall === null ? '' : `, factor ${shownFactor(p.overall)}`}`
	})
};
