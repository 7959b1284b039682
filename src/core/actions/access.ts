import { z } from 'zod';
import { KEY_SCOPES } from '../access/keys.ts';
import { INVITE_PURPOSES, WAYS_IN } from '../access/session.ts';
import { action } from './action.ts';

const role = z.object({ role: z.string() });
const nothing = z.object({});
const WAY_WORDS = { password: 'with a password', pin: 'by card and PIN' } as const;

/** Who gets in, and what becomes of accounts. */
export const ACCESS_ACTIONS = {
	'account.made': action({
		subject: 'account',
		payload: role,
		says: (p) => `Account made, as ${p.role}`
	}),
	'account.changed': action({
		subject: 'account',
		payload: role,
		says: (p) => `Account given a new password, as ${p.role}`
	}),
	'account.role-changed': action({
		subject: 'account',
		payload: z.object({ from: z.string(), to: z.string() }),
		says: (p) => `Account changed from ${p.from} to ${p.to}`
	}),
	'account.renamed': action({
		subject: 'account',
		payload: nothing,
		says: () => 'Name, initials or address of an account changed'
	}),
	'screen.opened': action({
		subject: 'account',
		payload: z.object({ about: z.string() }),
		says: (p) => `A second screen may follow: ${p.about}`
	}),
	'screen.lit': action({
		subject: 'account',
		payload: z.object({ about: z.string() }),
		says: (p) => `A second screen follows: ${p.about}`
	}),
	'account.disabled': action({
		subject: 'account',
		payload: z.object({ why: z.string() }),
		says: (p) => `Account closed. ${p.why}`
	}),
	'account.enabled': action({
		subject: 'account',
		payload: nothing,
		says: () => 'Account opened again'
	}),
	'account.link-made': action({
		subject: 'account',
		payload: z.object({ purpose: z.enum(INVITE_PURPOSES) }),
		says: (p) =>
			p.purpose === 'invite'
				? 'Link made for the first sign-in'
				: 'Link made for choosing a new password'
	}),
	'account.password-chosen': action({
		subject: 'account',
		payload: z.object({ by: z.enum(['link', 'self']) }),
		says: (p) => `Password chosen${p.by === 'link' ? ' through a link' : ''}`
	}),
	'account.pin-chosen': action({
		subject: 'account',
		payload: nothing,
		says: () => 'PIN chosen'
	}),
	'account.pin-taken': action({
		subject: 'account',
		payload: z.object({ failures: z.number() }),
		says: (p) => `PIN taken away after ${p.failures} tries that failed`
	}),
	'account.card-given': action({
		subject: 'account',
		payload: nothing,
		says: () => 'Personal card given; the one before opens nothing'
	}),
	'account.two-step': action({
		subject: 'account',
		payload: z.object({ on: z.boolean() }),
		says: (p) => `Two-step sign-in turned ${p.on ? 'on' : 'off'}`
	}),
	'account.key-made': action({
		subject: 'account',
		payload: z.object({
			name: z.string(),
			scope: z.enum(KEY_SCOPES).optional(),
			until: z.string().nullable().optional()
		}),
		says: (p) => `Key for programs made: ${p.name}${p.scope ? ` (${p.scope})` : ''}`
	}),
	'account.key-revoked': action({
		subject: 'account',
		payload: z.object({ name: z.string() }),
		says: (p) => `Key for programs revoked: ${p.name}`
	}),
	'session.begun': action({
		subject: 'account',
		detail: true,
		payload: z.object({
			way: z.enum(WAYS_IN),
			shared: z.boolean(),
			/** Who worked on the device until then. */
			from: z.string().nullable().optional()
		}),
		says: (p) => `Signed in ${WAY_WORDS[p.way]}${p.shared ? ', on a shared bench' : ''}`
	}),
	'session.refused': action({
		subject: 'account',
		detail: true,
		payload: z.object({
			way: z.enum([...WAYS_IN, 'code']),
			why: z.enum(['wrong', 'wait', 'closed', 'device', 'used']),
			failures: z.number().optional()
		}),
		says: (p) =>
			`Sign-in refused: ${
				{
					wrong: `the ${p.way === 'pin' ? 'PIN' : p.way} was wrong`,
					wait: 'too many tries',
					closed: 'the account is closed',
					device: 'the device takes no PIN',
					used: 'the code was used before'
				}[p.why]
			}`
	}),
	'session.ended': action({
		subject: 'account',
		detail: true,
		payload: z.object({
			why: z.enum(['signed out', 'handed over', 'idle', 'whole', 'by hand', 'account changed']),
			count: z.number().optional()
		}),
		says: (p) =>
			({
				'signed out': 'Signed out',
				'handed over': 'Handed over to somebody else',
				idle: 'Session ended: nobody used the bench',
				whole: 'Session ended: its time was over',
				'by hand': `Ended ${p.count === 1 || !p.count ? 'a session' : `${p.count} sessions`} by hand`,
				'account changed': 'Sessions ended, as the account was changed'
			})[p.why]
	}),
	'device.shared': action({
		subject: 'account',
		payload: z.object({ shared: z.boolean(), name: z.string() }),
		says: (p) =>
			p.shared
				? `Device set up as a shared bench${p.name ? `: ${p.name}` : ''}`
				: 'Device is no shared bench any more'
	}),
	'site.secret-renewed': action({
		subject: 'site',
		payload: z.object({ pins: z.number(), twoStep: z.number() }),
		says: (p) =>
			`Secret of the installation renewed: ${p.pins} PINs and ${p.twoStep} second steps taken away, everyone signed out`
	}),
	'site.access': action({
		subject: 'site',
		payload: z.object({
			twoPeople: z.boolean(),
			idleMinutes: z.number(),
			wholeHours: z.number(),
			proofMinutes: z.number(),
			twoStepRoles: z.array(z.string())
		}),
		says: (p) =>
			`Rules of access changed: ${p.twoPeople ? 'two people for approving and releasing' : 'one person may approve and release'}, idle ${p.idleMinutes} min, whole ${p.wholeHours} h, proof ${p.proofMinutes} min`
	}),
	'account.notices': action({
		subject: 'account',
		payload: z.object({ digest: z.boolean(), urgent: z.boolean() }),
		says: (p) =>
			`Messages chosen: of the day ${p.digest ? 'yes' : 'no'}, at once ${p.urgent ? 'yes' : 'no'}`
	}),
	'notice.tried-again': action({
		subject: 'account',
		payload: z.object({ subject: z.string(), address: z.string() }),
		says: (p) => `Message sent again to ${p.address}: ${p.subject}`
	})
};
