/** A table that the browser keeps as a file. */
export const csvFile = (name: string, text: string): Response =>
	new Response(text, {
		headers: {
			'content-type': 'text/csv; charset=utf-8',
			'content-disposition': `attachment; filename="${name}"`
		}
	});
