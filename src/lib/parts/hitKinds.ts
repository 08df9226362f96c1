/** What the search finds, as printed. */
export const HIT_KINDS = {
	client: 'Client',
	site: 'Site',
	page: 'Page',
	trial: 'Trial',
	load: 'Load',
	report: 'Report'
} as const;
