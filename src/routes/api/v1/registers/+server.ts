import { fieldOf, REGISTER_KEYS, REGISTERS } from '$core/records/registers';
import { api, contextOf } from '$lib/server/web/request';

/** What registers there are, with the fields of each. */
export const GET = (event) =>
	api(async () => {
		contextOf(event);
		return {
			registers: REGISTER_KEYS.map((register) => {
				const { name, what, period, columns } = REGISTERS[register];
				return {
					register,
					name,
					what,
					period: period && fieldOf(period),
					fields: Object.keys(columns).map(fieldOf)
				};
			})
		};
	});
