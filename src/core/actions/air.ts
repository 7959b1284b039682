import { jumpWords } from '../air/steady-time.ts';
import { z } from 'zod';
import { action } from './action.ts';
import { dayWords, remark } from './words.ts';

const stamp = z.looseObject({ waterVolumeL: z.number(), ratedBar: z.number() });
const typed = (entered?: string) => (entered ? `, written as ${entered}` : '');

/** Cylinders, fills, sources of air and airlines. */
export const AIR_ACTIONS = {
	'cylinder.entered': action({
		subject: 'item',
		payload: stamp,
		says: (p) => `Stamp entered: ${p.waterVolumeL} L, ${p.ratedBar} bar`
	}),
	'cylinder.corrected': action({
		subject: 'item',
		payload: stamp,
		says: (p) => `Stamp corrected: ${p.waterVolumeL} L, ${p.ratedBar} bar`
	}),
	'cylinder.tested': action({
		subject: 'item',
		payload: z.object({ testedOn: z.string(), passed: z.boolean(), stamp: z.string() }),
		says: (p) =>
			`Periodic test of ${dayWords(p.testedOn)} ${p.passed ? 'passed' : 'failed'}${p.stamp ? `, stamp ${p.stamp}` : ''}`
	}),
	'cylinder.pressure': action({
		subject: 'item',
		payload: z.object({
			bar: z.number().nullable(),
			why: z.string(),
			entered: z.string().optional()
		}),
		says: (p) =>
			p.bar === null
				? 'Nobody knows what is left in it'
				: `${p.bar} bar${typed(p.entered)}, ${p.why}`
	}),
	'cylinder.looked-inside': action({
		subject: 'item',
		payload: z.object({}),
		says: () => 'Looked at inside'
	}),
	'cylinder.brought': action({
		subject: 'item',
		payload: z.object({ tag: z.string(), from: z.string(), to: z.string() }),
		says: (p) => `${p.tag} brought from ${p.from} to ${p.to}`
	}),
	'fill.started': action({
		subject: 'fill',
		payload: z.object({
			batch: z.number(),
			startBar: z.number(),
			instrument: z.string(),
			looked: z.boolean()
		}),
		says: (p) => `Looked at and put on the panel with ${p.startBar} bar, batch ${p.batch}`
	}),
	'fill.bank': action({
		subject: 'fill',
		payload: z.object({ bank: z.number() }),
		says: (p) => `Bank ${p.bank} opened to it`
	}),
	'fill.pumped': action({
		subject: 'fill-panel',
		payload: z.object({ bank: z.number() }),
		says: (p) => `Bank ${p.bank} pumped up`
	}),
	'fill.ended': action({
		subject: 'fill',
		payload: z.object({
			endBar: z.number(),
			endC: z.number(),
			settledBar: z.number(),
			outcome: z.string(),
			source: z.string()
		}),
		says: (p) =>
			`Filled to ${p.endBar} bar at ${p.endC} °C, ${p.settledBar} bar when cool: ${p.outcome}`
	}),
	'air-source.added': action({
		subject: 'air-source',
		payload: z.object({ name: z.string(), kind: z.string(), banks: z.array(z.unknown()) }),
		says: (p) => `Source of air added: ${p.name}`
	}),
	'air.tested': action({
		subject: 'air-source',
		payload: z.object({
			source: z.string(),
			test: z.string(),
			outcome: z.string(),
			held: z.array(z.string())
		}),
		says: (p) =>
			`Air of ${p.source} tested: ${p.outcome}${p.held.length ? `, ${p.held.length} cylinders held` : ''}`
	}),
	'air.failed': action({
		subject: 'air-source',
		payload: z.object({ source: z.string(), test: z.string() }),
		says: (p) => `Held: the air of ${p.source} failed its test`
	}),
	'air.worked-on': action({
		subject: 'air-source',
		payload: z.object({ source: z.string(), what: z.string() }),
		says: (p) => `${p.source} worked on: ${p.what}`
	}),
	'rig.changed': action({
		subject: 'item',
		payload: z.looseObject({}),
		says: () => 'Written down how the rig is put together'
	}),
	'rig.sorbent-changed': action({
		subject: 'item',
		payload: z.object({ on: z.string(), passed: z.boolean(), note: z.string() }),
		says: (p) => `Sorbent and filters changed on ${dayWords(p.on)}${remark(p.note)}`
	}),
	'rig.alarm-tested': action({
		subject: 'item',
		payload: z.object({ on: z.string(), passed: z.boolean(), note: z.string() }),
		says: (p) =>
			`Alarm tested on ${dayWords(p.on)}: ${p.passed ? 'sounds' : 'failed'}${remark(p.note)}`
	})
};

/** Who goes in with breathing apparatus, and out again. */
export const ENTRY_ACTIONS = {
	'entry.team-in': action({
		subject: 'entry',
		payload: z.object({
			task: z.string(),
			marginMin: z.number(),
			wearers: z.array(
				z.object({
					wearer: z.string(),
					startBar: z.number(),
					waterVolumeL: z.number(),
					sealChecked: z.boolean().optional()
				})
			)
		}),
		says: (p) => `Team sent in: ${p.task}`
	}),
	'entry.worn': action({
		subject: 'entry',
		payload: z.object({ wearer: z.string(), task: z.string() }),
		says: (p) => `Worn by ${p.wearer}: ${p.task}`
	}),
	'entry.pressure': action({
		subject: 'entry',
		payload: z.object({
			wearer: z.string(),
			bar: z.number(),
			entered: z.string().optional(),
			corrects: z.boolean()
		}),
		says: (p) => `${p.wearer} told ${p.bar} bar${typed(p.entered)}`
	}),
	'entry.turned': action({
		subject: 'entry',
		payload: z.object({ task: z.string() }),
		says: (p) => `Team turned: ${p.task}`
	}),
	'entry.alarm': action({
		subject: 'entry',
		payload: z.object({ wearer: z.string(), alarm: z.string(), due: z.string() }),
		says: (p) => `Alarm for ${p.wearer}: ${p.alarm}`
	}),
	'entry.alarm-seen': action({
		subject: 'entry',
		payload: z.object({ wearer: z.string(), alarm: z.string() }),
		says: (p) => `Alarm for ${p.wearer} seen: ${p.alarm}`
	}),
	'entry.clock-set': action({
		subject: 'entry',
		payload: z.object({ seconds: z.number() }),
		says: (p) =>
			`The clock of the server was set ${jumpWords(p.seconds * 1000)}; the board counts on`
	}),
	'entry.out': action({
		subject: 'entry',
		payload: z.object({
			wearer: z.string(),
			startBar: z.number(),
			endBar: z.number(),
			entered: z.string().optional(),
			minutes: z.number(),
			lPerMin: z.number().nullable()
		}),
		says: (p) =>
			`${p.wearer} out after ${p.minutes} min with ${p.endBar} bar${p.lPerMin === null ? '' : `, ${p.lPerMin} L/min`}`
	})
};
