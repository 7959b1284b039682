import { stationOf } from '$core/data/families';
import { routeOf } from '$core/data/care-routes';
import { rejectCode } from '$core/data/reject-codes';

/** What can be broken on something of a family, by place. */
export const damagesOf = (family: string) =>
	routeOf(family).looks.map(({ station, codes }) => ({
		station,
		name: stationOf(family, station).name,
		codes: codes.map((code) => ({ code, name: rejectCode(code).name }))
	}));
