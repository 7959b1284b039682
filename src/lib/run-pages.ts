/** Where the worker of the browser keeps the pages of runs, each under the person who opened it. */
export const RUN_PAGES = 'runs';

/** The key of a page, with the person in it. */
export const runPageKey = (url: string, person: string): string => {
	const key = new URL(url);
	key.searchParams.set('of', person || 'nobody');
	return key.href;
};

/** The pages of a person, as they are asked for. */
export const runPagesOf = async (cache: Cache, person: string): Promise<Request[]> =>
	(await cache.keys()).filter(({ url }) => new URL(url).searchParams.get('of') === person);
