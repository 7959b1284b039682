import type { Inlet } from '../data/blocking.ts';
import type { WornKey } from '../drawings/worn.ts';

/** The drawing that belongs to a question: hands on a mask, or how it is worn; wrongly, where that is what is asked. */
export interface Pictured {
	hands?: Inlet | 'out';
	worn?: WornKey;
	/** It is done rightly in what is asked. */
	rightly?: boolean;
}

/** A question with what is right first; the trainer shuffles them. */
export interface PlainQuestion extends Pictured {
	asks: string;
	options: readonly [right: string, ...wrong: string[]];
	why: string;
}

/** What the wearer felt at a seal check, and what follows. Common practice. */
export const SEAL_QUESTIONS: readonly PlainQuestion[] = [
	{
		asks: 'Palms over both cartridges, breathe in: the mask draws in and stays so for ten seconds.',
		options: [
			'It seals this way: now breathe out against the covered valve',
			'It is too tight: loosen the lower straps',
			'It proves that the mask fits this face: no fit test is needed'
		],
		why: 'The check shows that it seals now; a fit test shows that this model and size fits this face.',
		hands: 'cartridges',
		rightly: true
	},
	{
		asks: 'Palms over the cartridges, breathe in: it draws in, then slowly comes back.',
		options: [
			'Seat it anew and check again; still so: another mask',
			'Pull the lower straps as tight as they go',
			'Go in: a little air through the edge does no harm'
		],
		why: 'Over-tightened straps bend the edge and leak more. Two leaks in a row: not this mask.',
		hands: 'cartridges',
		rightly: true
	},
	{
		asks: 'It seals as long as the palms press hard on the cartridges.',
		options: [
			'Cover the inlets without pressing, and check again',
			'It seals: that is the check',
			'Press harder, so that nothing can leak'
		],
		why: 'The hands push the mask onto the face: what seals then leaks as soon as they let go.',
		hands: 'cartridges'
	},
	{
		asks: 'Air comes in at the cartridge beside the palm.',
		options: [
			'The inlet is not covered wholly: cover it and check again',
			'The mask leaks: send it to service',
			'The cartridge is used up: change it'
		],
		why: 'Air through an inlet that is half covered looks like a leak of the edge.',
		hands: 'prefilter-cap'
	},
	{
		asks: 'Palm over the exhalation cover, breathe out gently: the mask lifts a little, no air at the edge.',
		options: [
			'It seals this way',
			'It leaks: it must not move',
			'The exhalation valve sticks: send it to service'
		],
		why: 'It rises a little and holds: that is what a sealed mask does.',
		hands: 'out',
		rightly: true
	},
	{
		asks: 'Stubble of two days lies where the edge lies.',
		options: [
			'Shave, or take a kind that does not seal on the face',
			'Tighten the straps and check twice',
			'Go on: the seal check decides'
		],
		why: 'Nothing that needs a seal works over hair; the check may pass at rest and leak at work.',
		worn: 'stubble'
	},
	{
		asks: 'The check was good at the door. Inside, after an hour, the mask has slipped with sweat.',
		options: [
			'Leave the air, seat it, check again',
			'Press it back and go on',
			'Tighten one strap where one stands'
		],
		why: 'A mask that moved is a mask that is not checked.'
	},
	{
		asks: 'Twin hoses cannot be covered by hand.',
		options: [
			'Pinch the hoses shut, breathe in, and hold',
			'Leave the check out',
			'Cover the exhalation valve only, that says the same'
		],
		why: 'The hose is where the inlet can be shut; both ways are checked where the model allows both.',
		hands: 'hose',
		rightly: true
	}
];

/** The usual mistakes, and what is wrong about each. Common practice. */
export const MISTAKE_QUESTIONS: readonly PlainQuestion[] = [
	{
		asks: 'A dust filter is worn against solvent vapour.',
		options: [
			'Vapour goes through it as if nothing were there',
			'It lasts half as long as against dust',
			'It is enough for a short job'
		],
		why: 'A particle filter holds particles; vapour needs a sorbent.',
		worn: 'dust-filter-vapour'
	},
	{
		asks: 'A vapour cartridge without a particle filter is worn while sanding.',
		options: [
			'The dust goes through it',
			'The dust makes it last longer',
			'Nothing: a cartridge holds dust as well'
		],
		why: 'A sorbent bed is coarse: fine dust passes between its grains.',
		worn: 'cartridge-dust'
	},
	{
		asks: 'A pre-filter is worn alone, because the cartridge made breathing hard.',
		options: [
			'It is no filter: it only spares the one behind it',
			'It is a filter of the lowest class',
			'It holds vapour but no dust'
		],
		why: 'Hard to breathe means: change the filter, not leave it out.',
		worn: 'prefilter-alone'
	},
	{
		asks: 'One filter of a pair is changed, its twin stays.',
		options: [
			'Change both: the older lets it through first',
			'Right: the newer one holds for both',
			'Turn the older one to the other side'
		],
		why: 'What comes through one side is breathed.'
	},
	{
		asks: 'The filter smells of nothing, so it is left on for another week.',
		options: [
			'The change plan decides: smell is a last alarm, and some gases dull it',
			'Right: one smells it long before it harms',
			'Right, if it is smelled at every day’s beginning'
		],
		why: 'Hydrogen sulphide dulls the nose; many vapours harm below what is smelled.'
	},
	{
		asks: 'A dust mask is worn with one of its two straps.',
		options: [
			'It does not seal: both straps, one above the other',
			'It is enough where there is little dust',
			'It is enough if the nose clip is pressed'
		],
		why: 'One strap pulls it to one edge and opens the other.',
		worn: 'one-strap'
	},
	{
		asks: 'The head straps are put on over the helmet.',
		options: [
			'Straps lie on the head; the helmet goes over them',
			'Right: so the helmet holds them',
			'Right, if the chin strap is shut'
		],
		why: 'What is knocked off with the helmet takes the mask with it.',
		worn: 'over-helmet'
	},
	{
		asks: 'A dust mask sits on the face like this.',
		options: [
			'It is upside down: the clip goes over the nose',
			'It is right: the clip holds the chin',
			'Either way seals, if both straps are on'
		],
		why: 'The clip closes the gap beside the nose; at the chin it closes nothing.',
		worn: 'upside-down'
	},
	{
		asks: 'A cylinder is filled fast to 300 bar, put on the rack hot, and called full.',
		options: [
			'It reads lower when it is cool: top it up or count less',
			'It gains pressure as it cools',
			'Nothing: pressure is pressure'
		],
		why: 'Gas that cools falls in pressure: a hot fill of 300 bar can be 270 bar by the next morning.'
	},
	{
		asks: 'The reserve under the whistle is counted as working time.',
		options: [
			'The reserve is the way out when something goes wrong',
			'Right, if the way out is short',
			'Right for the most experienced of the team'
		],
		why: 'Who works down to the whistle walks out on what was meant for trouble.'
	},
	{
		asks: 'Two different filters hang on one mask.',
		options: [
			'Not worn: both must be of one kind and class, fitted together',
			'Good: each is against something else',
			'Good, if the stronger is on the side of the work'
		],
		why: 'The air takes both ways; the weaker decides.',
		worn: 'two-kinds'
	},
	{
		asks: 'A disc dried crumpled after the wash; it looks all right from the front.',
		options: [
			'Off with it: a disc that does not lie flat lets breath back',
			'It flattens by itself within a day of wearing',
			'Press it flat and put the cover on'
		],
		why: 'It is one of the commonest finds after a wash, and the cheapest to mend.'
	}
];
