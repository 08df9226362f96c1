/** What sheets say of their parts, their loads and their machine: worded by the server, so that no page carries it. */
export const parts = {
	'load.lcp':
		'The largest paint{known, select, yes { ({element})} other {}} came after {ms}{some, select, yes {: {parts}} other {}}.',
	'load.lcp.firstByte': 'until the first byte',
	'load.lcp.resourceDelay': 'until its file was requested',
	'load.lcp.resourceLoad': 'downloading it',
	'load.lcp.renderDelay': 'until it was painted',
	'load.blocking': 'The main thread was blocked for {ms}, by {owners}.',
	'load.moved': 'Content moved by {cls}: {elements}.',
	'load.tail': 'Other companies kept the page loading for {ms} after the site itself was complete: {owners}.',
	'load.more': '{n} more',
	'calm.unknown': 'This system does not tell how busy it was with something else.',
	'calm.shares':
		'Other programs and machines took {share}\u00a0% of the processor time, {burst}\u00a0% in the worst half second{disturbed, select, yes {: more than a calm load may lose} other {}}.',
	'calm.waited':
		'{gaveUp, select, yes {It did not become calm within {seconds} s} other {The lab waited {seconds} s until it was calm}}.',
	'calm.busy-machine':
		'{disturbed} of {loads} loads were made while other programs or machines took processor time, in a third of the places or more twice. They count here, so that spreads are wide and small differences may stay hidden. End other programs, or measure at a quieter hour or on another machine, and repeat the trial.',
	'return.gone':
		'The effect on {metrics} went when the change was taken back, which speaks for the change as its cause.',
	'return.stays': 'The effect on {metrics} stayed when the change was taken back: something else may be its cause.',
	'return.open': 'Whether the effect on {metrics} went when the change was taken back is not decided.',
	'loadpart.figures':
		'{n, plural, one {# figure} other {# figures}} with their definitions{repeat, select, yes {, first and repeat visit} other {}}',
	'loadpart.steps.ok': '{n, plural, one {# step} other {# steps}}, all went as expected',
	'loadpart.picture':
		'{lcp, select, yes {Where the LCP element is} other {No LCP element}}{shifts, plural, =0 {; nothing moved} one {; # shift} other {; # shifts}}',
	'loadpart.frames': '{n, plural, one {# frame} other {# frames}}, finished after {ms}',
	'loadpart.weight': '{bytes} in {n, plural, one {# request} other {# requests}}; {share} % from third parties',
	'loadpart.thread': '{n, plural, one {# long task} other {# long tasks}}, the longest {ms}',
	'loadpart.taps': '{works} of {n, plural, one {one press} other {# presses}} had their effect at once',
	'loadpart.identity.open': 'The load that checks it waits for the lab',
	'loadpart.identity.known':
		'{n, plural, =0 {In one load each, no difference} one {One difference, in one load each} other {# differences, in one load each}}',
	'loadpart.checks.outages': '{n, plural, one {one outside service} other {# outside services}} down',
	'loadpart.checks.taps': 'taps while it loads',
	'loadpart.checks.identity': 'what a visitor is served',
	'loadpart.checks': 'Not run yet: {list}',
	'loadpart.outages.open': 'Loads that check it wait for the lab',
	'loadpart.outages.worst':
		'{service} {how, select, slow {3 s late} refused {refusing} other {silent}}: {effect, select, broken {the page was not shown or no longer worked} later {it began to render {later} later} other {when it began to render is not known}}',
	'loadpart.outages.calm': 'In one load each, rendering began within half a second of usual, whichever failed',
	'loadpart.held.not-asked': 'Not checked in this load',
	'loadpart.held.nothing':
		'Next to nothing {kind, select, postponed {comes later by itself} other {waits for interaction}}',
	'loadpart.held.some':
		'{n, plural, one {# request} other {# requests}} and {bytes} {kind, select, postponed {by themselves after the page has settled} other {only after the visitor moves}}',
	'loadpart.facts':
		'{errors, plural, =0 {No console errors} one {# console error} other {# console errors}}{overlay, select, yes {, an overlay on the page} other {}}{slots, plural, =0 {} one {, # empty space} other {, # empty spaces}}',
	'part.pending': 'Being worked out from the records',
	'part.off': 'Waits for the lab, which is off',
	'part.later': 'Worked out once the loads have ended',
	'part.shifts': '{metric}, {n, plural, one {# load} other {# loads}}',
	'part.table': '{n, plural, one {# metric} other {# metrics}}; {decided} to decide on, the rest to explore',
	'part.why.none': 'No decided difference has a cause in the evidence',
	'part.of': '“{arm}”: {finding}',
	'part.frames': 'The load in the middle of each variant',
	'part.frames.none': 'No frames were recorded',
	'part.held.not-asked': 'Not checked what comes late',
	'part.held.open': 'Loads that check it wait for the lab',
	'part.held.nothing': 'No request comes late in {n, plural, one {one load} other {# loads}}',
	'part.held.some':
		'“{arm}”: {requests, plural, one {# request} other {# requests}} and {bytes} {kind, select, postponed {by themselves after the page has settled} other {only after the visitor moves}}',
	'part.broke.nothing':
		'No new errors, no new failed requests{steps, select, none {; no steps were checked} all {; all steps went well} other {; single steps failed}}',
	'part.broke.some': '“{arm}”: {parts}',
	'part.broke.looks': '“{arm}”: {percent} % of the picture differs',
	'part.fairness.level': '{equal} of {all} lines are equal{unknown, plural, =0 {} other {, # unknown}}',
	'part.fairness.differs':
		'{differs} of {all} lines {differs, plural, one {differs} other {differ}}{intended, select, all {, as intended} some {, some of them intended} other {}}',
	'part.arms':
		'{n, plural, one {# variant} other {# variants}}; {setups, select, none {what they run on is not written down} same {no difference in setup is written down} other {{differences, plural, one {# difference} other {# differences}} in setup}}',
	'part.method':
		'{rounds, plural, one {# round} other {# rounds}}, {looks, plural, =0 {no look yet} one {one look} other {# looks}}, one error level of 5 % for everything',
	'part.loads':
		'{n, plural, one {# load} other {# loads}}{failed, plural, =0 {} other {, # failed}}{disturbed, plural, =0 {} other {, # while the machine was busy}}{excluded, plural, =0 {} other {, # excluded}}{outlying, plural, =0 {} other {, # outlying}}',
	'part.repeats': '{n, plural, one {one other run} other {# other runs}}'
} as const;

export type PartKey = keyof typeof parts;
