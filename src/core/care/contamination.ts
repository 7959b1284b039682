import type { Contaminant } from '../hazards/facts.ts';
import type { Harm } from '../data/substance.ts';

type OnIt = Pick<Contaminant, 'name' | 'substance'>;

/** Harms for which what carries them shares no bath with other things. Common practice. */
const APART: readonly Harm[] = ['sensitiser', 'carcinogen'];

/** What harms through the skin is not touched bare-handed. Published: skin notations of the limit lists; from memory. */
export const throughSkin = ({ substance }: OnIt): boolean => substance?.skin === true;

/** What goes through the skin, sensitises or causes cancer does not share a bath. Common practice. */
export const wantsOwnBath = (one: OnIt): boolean =>
	throughSkin(one) || (one.substance?.harms ?? []).some((harm) => APART.includes(harm));

/** What is on something that was worn among contaminants: what wants a bath of its own first. */
export const dirtOf = (contaminants: readonly OnIt[]) => {
	const own = contaminants.filter(wantsOwnBath);
	const rest = contaminants.filter((one) => !own.includes(one));
	return {
		names: [...own, ...rest].map(({ name }) => name),
		ownBath: own.length > 0,
		bareHands: !contaminants.some(throughSkin)
	};
};
