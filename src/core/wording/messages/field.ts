/** Messages about what real visitors had. */
export const field = {
	'field.scope.page': 'this page',
	'field.scope.origin': 'the whole origin: this page has too few visits',
	'field.scope.none': 'too few visits, of the page and of the whole origin',
	'field.scope.unasked': 'not asked yet',
	'field.assessment.passes': 'passes',
	'field.assessment.does-not': 'does not pass',
	'field.assessment.not-enough-visits': 'not enough visits',
	'field.tally':
		'{device, select, phone {On phones} other {On desktops}} {passes} of {all, plural, one {# page} other {# pages}} {passes, plural, one {passes} other {pass}}{fails, plural, =0 {} one {, one does not} other {, # do not}}{few, plural, =0 {} one {, one has not enough visits} other {, # have not enough visits}}',
	'field.fault.down': 'The panel did not answer. What is here stays; it is asked again tomorrow, or when you ask.',
	'field.fault.key': 'The panel does not know this key. Set ZAFRA_PANEL_KEY and ask again.',
	'field.fault.rate': 'The panel is asked too often. The rest is asked for later.',
	'field.fault.changed': 'The panel answers in another form than Zafra knows. Nothing of it was taken.',
	'field.fault.refused': 'The panel refused the question. Check ZAFRA_PANEL.'
} as const;
