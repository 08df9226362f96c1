/** Messages about what real visitors had. */
export const field = {
	'field.scope.page': 'this page',
	'field.scope.origin': 'all pages of the site: this one has too few visits',
	'field.scope.origin-alone': 'all pages of the site',
	'field.scope.too-few': 'too few visits, to the page and to the whole site',
	'field.scope.not-asked': 'not asked yet',
	'field.scope.no-answer': 'asked without an answer',
	'field.assessment.passes': '{all, select, yes {good on all three} other {good on {good}}}',
	'field.assessment.does-not': 'misses {missed}',
	'field.assessment.not-enough-visits': 'too few visits',
	'field.assessment.no-data': 'no data yet',
	'field.tally':
		'{device, select, phone {On phones} other {On desktops}} {passes, plural, =0 {none} other {#}} of {all, plural, one {# page} other {# pages}} {passes, plural, =0 {is} one {is} other {are}} good on Core Web Vitals{fails, plural, =0 {} one {, one misses at least one} other {, # miss at least one}}{few, plural, =0 {} one {, one has too few visits} other {, # have too few visits}}{none, plural, =0 {} one {, one has no data yet} other {, # have no data yet}}',
	'field.source.panel': 'the panel',
	'field.source.visits': 'own visits',
	'field.source.csv': 'a table',
	'field.effect.days':
		'{before} days before against {after} after, from own visits; shares of weekdays and weekends held. Intervals of {level} %.',
	'field.effect.windows':
		'{before} windows of 28 days before the release and {after} that hold days after it; what windows share is counted once. Intervals of {level} %.',
	'field.effect.control.other-pages': 'Other pages meanwhile: {drift}, taken off',
	'field.effect.control.competitor': 'The competitor meanwhile: {drift}, taken off',
	'field.effect.control.none':
		'Nothing to take the season off: this is the change since that day, not what the release did',
	'field.effect.soon':
		'{days, plural, =0 {Not enough days before it, and no later day helps.} one {Too soon to tell: one more day.} other {Too soon to tell: about # more days.}}',
	'field.effect.together': 'No verdict: days hang together here, so that too few of them tell something of their own.',
	'field.effect.mix': 'Visits before and after: {kinds}.',
	'field.effect.kind':
		'{line, select, slow {3G and slower} fast {4G and faster} other {connection not known}}, {way, select, new {new navigations} again {reloads and returns} other {kept or made beforehand by the browser}}: {before} % and {after} %',
	'field.effect.mix-decides':
		'Weighted as the visits before came, the answer is another: other visitors came, so nothing is said of the release.',
	'field.effect.trend':
		'{clear, select, yes {Before the release it {direction, select, up {rose} other {fell}} by {size} a week already} other {Before the release it may have been {direction, select, up {rising} other {falling}} already}}{decides, select, yes {: no verdict} other {}}.',
	'field.outcome.rate': '{reached} of {views} page views ({low} to {high} %)',
	'field.outcome.none': 'no page views',
	'field.outcome.caveat':
		'An association, and no proof: visitors with fast pages have other devices and networks, too. Only a release, watched with visitors, tells what speed does for them; a lab trial tells nothing of outcomes.',
	'visits.refused.repeated': 'sent again: counted once',
	'visits.refused.late': 'sent a week after the page view began',
	'visits.refused.origin': 'from a page of another host',
	'visits.refused.stale': 'from a copy of the script that is more than a week old',
	'visits.refused.flood': 'too many from one address in a minute',
	'visits.refused.weight': 'more than one address may weigh in a page’s day',
	'visits.refused.implausible': 'figures that no page view can have',
	'visits.refused.automated': 'driven by a program: shown, and not counted',
	'visits.refused.bot': 'a program by its own words: shown, and not counted',
	'visits.missing.no-input': 'nobody touched the page yet: without an input there is none',
	'visits.missing.no-goal': 'nobody reached it yet, or the page does not push it to zafraGoals',
	'visits.missing.never-set': 'no mark or measure of this name was set before the page view ended',
	'visits.missing.not-reported': 'the browsers of these visitors do not report it, or the page was left too soon',
	'visits.navigation.navigate': 'link or address',
	'visits.navigation.reload': 'reload',
	'visits.navigation.back-forward': 'back or forward',
	'visits.navigation.back-forward-cache': 'back, from the browser’s cache',
	'visits.navigation.prerender': 'rendered ahead',
	'visits.navigation.restore': 'restored tab',
	'visits.navigation.soft-navigation': 'route change',
	'field.fault.down': 'The panel did not answer. What is here stays; it is asked again tomorrow, or when you ask.',
	'field.fault.key': 'The panel does not know this key. Set ZAFRA_PANEL_KEY and ask again.',
	'field.fault.rate': 'The panel is asked too often. The rest is asked for later.',
	'field.fault.changed': 'The panel answers in another form than Zafra knows. Nothing of it was taken.',
	'field.fault.refused': 'The panel refused the question. Check ZAFRA_PANEL.'
} as const;
