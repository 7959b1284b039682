import {
	and,
	asc,
	count,
	desc,
	eq,
	gte,
	ilike,
	inArray,
	isNotNull,
	isNull,
	or,
	type SQL
} from 'drizzle-orm';
import { FAMILIES } from '../../../core/data/families.ts';
import { REJECT_CODES } from '../../../core/data/reject-codes.ts';
import type { FaultEnd } from '../../../core/service/ends.ts';
import type { Connection } from '../db/client.ts';
import { containing } from '../db/queries/contains.ts';
import { standingReports } from '../db/queries/faults.ts';
import { defect, item, place } from '../db/schema/index.ts';

export interface FaultFilter {
	/** Ended ones are its history. */
	of: 'open' | 'ended';
	q?: string;
	family?: string | null;
	placeId?: string | null;
	how?: FaultEnd | null;
	severity?: 'stop' | 'repair' | 'watch' | 'note' | null;
	station?: string | null;
	/** Reported since. */
	since?: Date | null;
	page?: number;
}

/** So many to a page. */
export const FAULTS_PER_PAGE = 50;

/** Faults as a page of a list: open ones the most serious first, ended ones the latest first. */
export async function faultList(db: Connection, filter: FaultFilter) {
	const ended = filter.of === 'ended';
	const where = and(
		ended ? isNotNull(defect.closedAt) : isNull(defect.closedAt),
		filter.q ? matching(filter.q) : undefined,
		filter.family ? eq(item.family, filter.family) : undefined,
		filter.placeId ? eq(item.placeId, filter.placeId) : undefined,
		filter.how ? eq(defect.closedHow, filter.how) : undefined,
		filter.severity ? eq(defect.severity, filter.severity) : undefined,
		filter.station ? eq(defect.station, filter.station) : undefined,
		filter.since ? gte(defect.reportedAt, filter.since) : undefined
	);
	const page = Math.max(1, filter.page ?? 1);
	const [rows, [all]] = await Promise.all([
		db
			.select({
				defect,
				reports: standingReports,
				tag: item.tag,
				family: item.family,
				place: place.name
			})
			.from(defect)
			.innerJoin(item, eq(item.id, defect.itemId))
			.innerJoin(place, eq(place.id, item.placeId))
			.where(where)
			.orderBy(
				...(ended
					? [desc(defect.closedAt), desc(defect.id)]
					: [asc(defect.severity), asc(defect.reportedAt), asc(defect.id)])
			)
			.limit(FAULTS_PER_PAGE)
			.offset((page - 1) * FAULTS_PER_PAGE),
		db
			.select({ n: count() })
			.from(defect)
			.innerJoin(item, eq(item.id, defect.itemId))
			.innerJoin(place, eq(place.id, item.placeId))
			.where(where)
	]);
	const total = all?.n ?? 0;
	return { rows, total, page, pages: Math.max(1, Math.ceil(total / FAULTS_PER_PAGE)) };
}

/** Words of a search, in tag, place, code, what was found and where on it. */
function matching(q: string): SQL | undefined {
	const word = q.toLowerCase();
	const codes = REJECT_CODES.filter(
		({ code, name }) => code.toLowerCase() === word || name.toLowerCase().includes(word)
	).map(({ code }) => code);
	const stations = [
		...new Set(
			FAMILIES.flatMap(({ stations: all }) =>
				all.filter(({ name }) => name.toLowerCase().includes(word)).map(({ key }) => key)
			)
		)
	];
	return or(
		ilike(item.tag, containing(q)),
		ilike(place.name, containing(q)),
		codes.length ? inArray(defect.code, codes) : undefined,
		stations.length ? inArray(defect.station, stations) : undefined
	);
}
