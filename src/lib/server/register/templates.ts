import { MODEL_TEMPLATES } from '../../../core/data/model-templates.ts';
import { itemModel } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { brokenConstraint, Refusal } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';

/** A template that the site takes, under the name that it gives it. */
export interface Taken {
	template: string;
	name: string;
	maker: string;
}

/** Adds models from templates; each is the site's own from then on. All of them or none. */
export async function takeTemplates(
	context: Context,
	input: { requestId: string; taken: readonly Taken[] }
): Promise<{ added: number }> {
	const { requestId, ...content } = input;
	if (input.taken.length === 0) throw new Refusal('invalid', 'Tick what the site has.', 'taken');
	const names = input.taken.map(({ name }) => name.trim().toLowerCase());
	const twice = input.taken.find(({ name }, i) => names.indexOf(name.trim().toLowerCase()) !== i);
	if (twice)
		throw new Refusal(
			'invalid',
			`${twice.name} stands there twice: name one of them otherwise.`,
			'taken'
		);
	try {
		return await write(
			context,
			'edit procedures',
			{ id: requestId, content },
			async ({ tx, record }) => {
				for (const { template: key, name, maker } of input.taken) {
					const template = MODEL_TEMPLATES.find((one) => one.key === key);
					if (!template)
						throw new Refusal('invalid', 'There is no such kind of construction.', 'taken');
					if (!name.trim())
						throw new Refusal('invalid', `Name the ${template.name.toLowerCase()}.`, 'taken');
					const id = crypto.randomUUID();
					const { family, mount, filterCount, ratedBar, card } = template;
					const values = {
						family,
						mount,
						filterCount,
						ratedBar,
						card,
						name: name.trim(),
						maker: maker.trim() || 'not stated'
					};
					await tx.insert(itemModel).values({ id, ...values });
					record('model.added', { of: id, payload: { ...values, template: key } });
				}
				return { added: input.taken.length };
			}
		);
	} catch (error) {
		if (brokenConstraint(error))
			throw new Refusal('conflict', 'One of these names is among the models already.', 'taken');
		throw error;
	}
}
