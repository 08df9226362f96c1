/** What Zafra says, in English. ICU message syntax (Unicode Technical Standard 35). */
import { field } from './field';
import { gathering } from './gathering';

export const en = {
	...gathering,
	...field,
	'cause.third-party-weight':
		'{name} {state, select, added {was added} gone {is gone} other {changed}}: {requests, plural, =0 {} one {# request and } other {# requests and }}{bytes} {direction, select, up {more} other {less}}.',
	'cause.third-party-blocking':
		'{name} {state, select, added {was added} gone {is gone} other {changed}}: it blocks {shift} {direction, select, up {more} other {less}}.',
	'cause.third-party-tail':
		'{name} {state, select, added {was added} gone {is gone} other {changed}}: the page is complete {shift} {direction, select, up {later} other {sooner}} for it.',
	'cause.compression':
		'Compression of {files, plural, one {# text file} other {# text files}} changed from {from} to {to}: {shift} {direction, select, up {more} other {less}}.',
	'cause.files':
		'{group, select, images {Images} scripts {The site’s own scripts} styles {Style sheets} fonts {Fonts} other {The document}}: {shift} {direction, select, up {more} other {less}} ({states}).',
	'cause.files.added': '{n} added',
	'cause.files.gone': '{n} gone',
	'cause.files.changed': '{n} changed',
	'cause.cdn': 'The site’s files come {change, select, on {from its CDN now} other {no longer from its CDN}}.',
	'cause.first-byte':
		'The document’s first byte comes {shift} {direction, select, up {later} other {sooner}}{cache, select, on {: it comes from a page cache now} off {: it no longer comes from a page cache} other {}}.',
	'cause.discovery': 'The LCP resource is asked for {shift} {direction, select, up {later} other {sooner}}.',
	'cause.resource-wait': '{name} waits {shift} {direction, select, up {longer} other {less}} for its server.',
	'cause.resource-receive': '{name} takes {shift} {direction, select, up {longer} other {less}} to be received.',
	'cause.render-delay':
		'The largest paint comes {shift} {direction, select, up {later} other {sooner}} after what it waits for has arrived.',
	'cause.layout': '{element} moves {direction, select, up {more} other {less}}: {shift} of CLS.',
	'cause.step-document':
		'The steps {direction, select, up {open more whole documents} other {open fewer whole documents and change part of the page instead}}; they take {shift} {direction, select, up {longer} other {less}}.',
	'cause.step-requests':
		'The steps ask for {direction, select, up {more} other {less}}; they take {shift} {direction, select, up {longer} other {less}}.',
	'cause.own-blocking': 'The site’s own scripts and layout block {shift} {direction, select, up {more} other {less}}.',

	'late.work':
		'{n, plural, one {# request} other {# requests}}, {bytes} ({percent}\u00a0% of its bytes) and {script} of script',
	'late.held-back': '“{arm}” waits for interaction: in one load {work} came only after the visitor moved.',
	'late.postponed':
		'“{arm}” postpones work: in one load {work} came by itself, from {after} after the page had settled.',

	'missed.check': '“{arm}”: “{check}” was met in {met} of {loads} loads.',
	'missed.send': '“{arm}”: {name} left in {sent} of {loads} loads while they loaded; {fate}.',
	'missed.fate.sent': 'sent',
	'missed.fate.late': 'by itself only at {at}',
	'missed.fate.after-input': 'only after an interaction',
	'missed.fate.never': 'never, not after an interaction either',
	'missed.fate.unknown': 'whether it leaves later is not known',

	'lcp-part.firstByte': 'first byte',
	'lcp-part.resourceDelay': 'until its resource was asked for',
	'lcp-part.resourceLoad': 'loading its resource',
	'lcp-part.renderDelay': 'until it was painted',

	'fair.conditions': 'Conditions',
	'fair.conditions.meaning': 'Device, network, place and cache are those of the trial for both.',
	'fair.browser': 'Browser',
	'fair.browser.meaning': 'Another browser can measure the same page differently.',
	'fair.machine': 'Speed of the machine',
	'fair.machine.meaning': 'A busier machine makes scripts slower: it touches TBT and everything after it.',
	'fair.time': 'Time and order',
	'fair.time.meaning':
		'{order, select, stages {Stages follow each other: what changed on its own in between looks like the change. A reference page takes it out.} other {Interleaved in random order: what drifts falls on both alike.}}',
	'fair.status': 'Status of the page',
	'fair.status.meaning': 'Another status is another page.',
	'fair.redirects': 'Redirects',
	'fair.redirects.meaning': 'Each redirect costs at least a round trip.',
	'fair.visitor': 'Visitor',
	'fair.visitor.meaning': 'Pages for signed-in visitors or with a basket come past most caches and show other things.',
	'fair.cache': 'Served from a cache',
	'fair.cache.meaning': 'A page from a cache answers sooner than one that is built anew.',
	'fair.compression': 'Compression of the document',
	'fair.compression.meaning': 'Bytes are only comparable when both or neither are compressed.',
	'fair.text-compression': 'Own text that came compressed',
	'fair.text-compression.meaning': 'Uncompressed scripts and styles weigh three to five times as much.',
	'fair.protocol': 'Protocol',
	'fair.protocol.meaning': 'HTTP/2 and 3 load many files at once over one connection.',
	'fair.host': 'Server',
	'fair.host.meaning': 'Another server or host can be quicker or slower on its own.',
	'fair.cdn': 'Own CDN',
	'fair.cdn.meaning': 'Files from a CDN come from nearer to the visitor.',
	'fair.overlay': 'Consent or other overlay',
	'fair.overlay.meaning': 'A layer over the page can become the LCP element and hold scripts back.',
	'fair.fonts': 'Web fonts',
	'fair.fonts.meaning': 'Fonts cost requests and can shift text.',
	'fair.third-parties': 'Third parties',
	'fair.third-parties.meaning': 'What other companies run on the page is part of its speed.',
	'fair.words': 'Words of the page',
	'fair.words.meaning':
		'{known, select, yes {{percent} % of the words are the same. Another content is another page.} other {Without text the content cannot be compared.}}',
	'fair.picture': 'Look of the page',
	'fair.picture.meaning': 'A page that shows less is easily faster.',
	'fair.tiers': 'Free or paid',
	'fair.tiers.meaning': 'A free tier against a paid one compares prices, not products.',
	'fair.features': 'Features',
	'fair.features.meaning':
		'{uneven, plural, =0 {The same features must be on in both.} other {Not level: {names}. A page that does less is easily faster.}}',
	'fair.failures': 'Failed loads',
	'fair.failures.meaning':
		'Failed loads are counted and never averaged; many of them say that the page is not reliable.',
	'fair.value.unknown': 'unknown',
	'fair.value.none': 'none',
	'fair.value.anonymous': 'anonymous',
	'fair.value.cache-hits': '{hits} of {of} loads',
	'fair.value.nothing': '',
	'fair.value.frozen-copy': 'the same frozen copy',
	'fair.value.not-compared': 'not compared',
	'fair.value.text': '{text}',
	'fair.value.speed': '{value} loops/ms',
	'fair.value.share': '{value} %',
	'fair.value.alike': '{value} % of the picture alike',
	'fair.value.span': '{from} to {to} UTC',
	'fair.value.failures': '{failed} of {of}',

	'regression.sentence': 'But “{arm}” broke something: {parts}.',
	'regression.step': 'step {step} fails',
	'regression.errors': '{n, plural, one {# new error} other {# new errors}} in the console',
	'regression.vanished': '{n, plural, one {# request} other {# requests}} of the baseline gone',
	'regression.looks': '{percent} % of the picture differs',
	'regression.requests': '{n, plural, one {# new failed request} other {# new failed requests}}',

	'reason.no-look': 'There is no look yet.',
	'reason.not-chosen': 'It was not chosen to decide on.',
	'reason.failures': '{failed} of {loads} loads of “{arm}” failed.',
	'reason.not-measured': '{metric} was not measured in both variants.',
	'reason.reference-failures':
		'{failed} of {loads} loads of the reference page failed in “{stage}”, so that the drift between the stages is not known.',
	'reason.few-rounds':
		'“{stage}” has {rounds, plural, one {# whole round} other {# whole rounds}}, and at least {least} are needed.',
	'reason.presence': '“{stage}” is held: “{check}” was met in {met} of {loads} loads.',
	'reason.no-drift-check':
		'Not judged: nothing shows how much the world drifted between the stages. A reference page in every stage shows it, or a last stage in which the change is taken back.',
	'reason.few-pages': 'Fewer than two pages have loads that can be compared.',

	'metric.score': 'score',
	'metric.lcp': 'largest paint',
	'metric.cls': 'layout shift',
	'metric.tbt': 'blocking time',
	'metric.wire': 'bytes transferred',
	'metric.inp': 'response to input',
	'metric.ttfb': 'first byte',
	'metric.fcp': 'first paint',
	'metric.start': 'start of rendering',
	'metric.si': 'Speed Index',
	'metric.vc': 'visual completion',
	'metric.dcl': 'document ready',
	'metric.onload': 'load event',
	'metric.full': 'full load',
	'metric.decoded': 'bytes decoded',
	'metric.requests': 'requests',
	'metric.elements': 'page elements',
	'metric.depth': 'page depth',
	'metric.unusedJs': 'unused script',
	'metric.unusedCss': 'unused style',
	'metric.stepShown': 'time until the step’s content',
	'metric.stepQuiet': 'time until the step is quiet',

	'answer.noise.none': 'No noise floor yet. {reason}',
	'answer.noise.differs':
		'Two runs of the same page came out different in {metrics}: do not trust small differences under these conditions.',
	'answer.noise.floor':
		'No difference was found between two runs of the same page; smaller differences than this are lost in its noise: {floor}.{more}',
	'answer.noise.short': 'No difference was found between two runs of the same page.',
	'answer.noise.more': ' More rounds would lower it for {metrics}.',
	'answer.pages': 'All {n} pages',

	'answer.rehearsed': 'Rehearsed, the page changed by the lab on its way ({what}):',
	'answer.rehearsed.broke': 'It tells no gain. {broke}',
	'answer.lead.yes': 'Yes.',
	'answer.lead.no': 'No.',
	'answer.lead.hardly': 'Hardly.',
	'answer.lead.open': 'Not decided yet.',
	'answer.lead.later': 'Only at first.',
	'answer.put-off.postponed':
		'In one load what “{arm}” saves in {metrics} came back by itself, {after} after the page had settled.',
	'answer.put-off.held-back': 'In one load what “{arm}” saves in {metrics} came back once the visitor moved.',
	'answer.plain.difference': '“{arm}” is {words} than “{baseline}”.',
	'answer.plain.mixed': '“{arm}” is {better}, but {worse} than “{baseline}”.',
	'answer.plain.slight': '“{arm}” is {words} than “{baseline}”; by how much is open.',
	'answer.plain.joint':
		'What “{arm}” shows against “{baseline}” in {open} is not beyond chance over all that the trial decides on together.',
	'answer.asked.same': 'No difference that matters in {metrics}.',
	'answer.word-in': '{word} in {metrics}',
	'answer.plain.open': 'Not decided whether “{arm}” differs from “{baseline}” in {open}.',
	'answer.plain.same': '“{arm}” and “{baseline}” show no difference that matters.',
	'answer.plain.same-in': '“{arm}” and “{baseline}” show no difference that matters in {same}. {reason}',
	'answer.plain.none': 'No verdict on “{arm}”. {reason}',
	'answer.group.same': 'No difference that matters: {names}.',
	'answer.group.undecided': 'Not decided: {names}.',
	'answer.group.none': 'No verdict: {names}.',
	'answer.best.best':
		'“{arm}” is the best of these {n}: better than each of the others in something, and in nothing behind by more than the margin.',
	'answer.best.equal':
		'{names} are equally good: no difference that matters between them, and no other is ahead by one that matters.',
	'answer.best.trade': 'None of these {n} is best in everything.',
	'answer.best.open': 'Not decided which of these {n} is best.',
	'answer.best.none': 'No verdict on which is best. {reason}',
	'answer.best.extreme': '“{arm}” is {words} than every other candidate.',
	'answer.best.price': '“{arm}” {price}',
	'answer.best.prices': 'Price a month: {prices}.',
	'answer.best.unknown-price': 'not known',
	'step.broke': 'Broke: {parts}.',
	'step.back': 'The page is back: no difference that matters from where it was.',
	'step.perhaps-back': 'Whether the page is back where it was is not decided: {metrics}.',
	'step.not-back': 'The page did not come back to where it was. {shifts}',
	'range.same': '{middle} in all {n}',
	'range.span': '{least} to {most}',
	'range.some': '{middle}, {least} to {most} in {n}',
	'place.nth':
		'{n, select, 1 {first} 2 {second} 3 {third} 4 {fourth} 5 {fifth} 6 {sixth} 7 {seventh} 8 {eighth} other {{n}}}',
	'place.either': '{from} or {to}',
	'place.range': '{from} to {to}',
	'place.open': 'not decided',

	'answer.detail.largest': 'Largest difference: {metric}, {size} {direction, select, more {more} other {less}}.',
	'answer.detail.range':
		'Largest difference: {metric}, {least} to {most} {direction, select, more {more} other {less}}.',
	'answer.detail.slight': 'Also {words}; by how much is open.',
	'answer.detail.joint':
		'{metrics} {n, plural, one {is} other {are}} not beyond chance over all that the trial decides on together.',
	'answer.detail.open': '{metrics} {n, plural, one {is} other {are}} not decided.',

	'answer.target.both-met': 'Both meet the target: {metrics}.',
	'answer.target.crosses': 'Only “{name}” meets the target: {metrics}.',
	'answer.target.both-missed': 'Both miss the target: {metrics}.',

	'board.wire': 'Bytes',
	'board.slight': '{word}, size open',
	'board.put-off.postponed': 'comes back later',
	'board.put-off.held-back': 'comes back on interaction',
	'board.same': 'no difference that matters',
	'board.exact': 'identical in every round',
	'board.undecided': 'undecided',
	'board.none': 'no verdict',
	'board.better': 'better',
	'board.within': 'inside the margin',
	'board.worse': 'worse',

	'verdict.faster': 'faster',
	'verdict.slower': 'slower',
	'verdict.lighter': 'lighter',
	'verdict.heavier': 'heavier',
	'verdict.more stable': 'more stable',
	'verdict.less stable': 'less stable',
	'verdict.more responsive': 'more responsive',
	'verdict.less responsive': 'less responsive',
	'verdict.better': 'better',
	'verdict.worse': 'worse',
	'verdict.slight': '{word}; by how much is open',
	'verdict.same': 'no practical difference',
	'verdict.undecided': 'undecided',
	'verdict.none': 'no verdict',
	'verdict.joint': 'Not beyond chance over all that the trial decides on together.',

	'target.both-met': 'Both meet the target.',
	'target.crosses': 'Only “{name}” meets the target.',
	'target.both-missed': 'Both miss the target.',

	'more.unknown': 'More rounds may decide {metrics}.',
	'more.beyond':
		'More than {most} rounds would be needed to decide {metrics}: a calmer machine or a wider margin helps more.',
	'more.few': 'A few more rounds would probably decide {metrics}.',
	'more.rounds': 'About {rounds, plural, one {# round} other {# rounds}} in all would probably decide {metrics}.'
} as const;

export type MessageKey = keyof typeof en;
/** What a client reads: complete in every language. */
export type ClientKey = Extract<
	MessageKey,
	`${'answer' | 'board' | 'metric' | 'place' | 'range' | 'step' | 'verdict' | 'target' | 'reason' | 'more'}.${string}`
>;

/** What evidence says in a report: complete in every language. */
export type EvidenceKey = Extract<MessageKey, `${'cause' | 'late' | 'missed' | 'regression'}.${string}`> | FairnessName;

type FairnessName = Exclude<Extract<MessageKey, `fair.${string}`>, `fair.value.${string}` | `fair.${string}.meaning`>;
