/** An answer that is a table to take along. */
export const csvAnswer = (name: string, text: string): Response =>
	new Response(text, {
		headers: {
			'content-type': 'text/csv; charset=utf-8',
			'content-disposition': `attachment; filename="${name}"`
		}
	});
