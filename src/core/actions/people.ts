import { z } from 'zod';
import { CHANGE_WORDS, FACE_CHANGES, FIT_METHODS } from '../people/fit-standing.ts';
import { ERASE_REASONS } from '../people/erase.ts';
import { JOBS } from '../people/competence.ts';
import { SESSION_ENDS, type SessionEnd } from '../fit/after.ts';
import { shownFactor } from '../fit/fit-factor.ts';
import { readable } from '../plan/calendar.ts';
import { action } from './action.ts';

/** How a test that was made here ended, in words. */
const END_WORDS: Record<SessionEnd, string> = {
	whole: 'gone through',
	noticed: 'the agent was noticed through the mask',
	stopped: 'stopped before its end',
	lost: 'the counter was lost'
};

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
	'fit-test.begun': action({
		subject: 'wearer',
		payload: numbered.extend({ model: z.string(), size: z.string(), way: z.string() }),
		says: (p) => `Fit test of wearer ${p.number} with ${p.model}, size ${p.size}, begun: ${p.way}`
	}),
	'fit-test.step': action({
		subject: 'wearer',
		payload: numbered.extend({ step: z.string() }),
		detail: true,
		says: (p) => `Fit test of wearer ${p.number}: ${p.step}`
	}),
	'fit-test.ended': action({
		subject: 'wearer',
		payload: numbered.extend({ ended: z.enum(SESSION_ENDS) }),
		says: (p) => `Fit test of wearer ${p.number} ended: ${END_WORDS[p.ended]}`
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
	}),
	'wearers.imported': action({
		subject: 'import',
		payload: z.object({ wearers: z.number() }),
		says: (p) => `${p.wearers} wearers taken in from a table`
	}),
	'wearer.names-matched': action({
		subject: 'wearer',
		payload: numbered.extend({ names: z.number() }),
		says: (p) =>
			`${p.names} typed ${p.names === 1 ? 'name' : 'names'} matched to wearer ${p.number}`
	}),
	'wearer.own-item': action({
		subject: 'wearer',
		payload: numbered.extend({ tag: z.string(), own: z.boolean() }),
		says: (p) => `${p.tag} ${p.own ? 'became' : 'is no longer'} wearer ${p.number}’s own`
	}),
	'wearer.exported': action({
		subject: 'wearer',
		payload: numbered,
		says: (p) => `What is kept of wearer ${p.number} was written out`
	}),
	'wearer.erased': action({
		subject: 'wearer',
		payload: numbered.extend({ reason: z.enum(ERASE_REASONS) }),
		says: (p) => `Who wearer ${p.number} is was erased: ${p.reason}`
	}),
	'authorisation.given': action({
		subject: 'authorisation',
		payload: z.object({
			person: z.string(),
			job: z.enum(JOBS),
			scope: z.string(),
			from: z.string(),
			until: z.string().nullable(),
			evidence: z.string()
		}),
		says: (p) =>
			`${p.person} authorised: ${p.job}, ${p.scope}, from ${readable(p.from)}${p.until ? ` until ${readable(p.until)}` : ''}; ${p.evidence}`
	}),
	'authorisation.taken-back': action({
		subject: 'authorisation',
		payload: z.object({ person: z.string(), job: z.enum(JOBS), why: z.string() }),
		says: (p) => `Authorisation of ${p.person} taken back: ${p.job}; ${p.why}`
	})
};
