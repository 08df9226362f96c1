/** What an audit finds, what to do about it and when it is done. Advice is steps, parted by " | ". */
export const findings = {
	'finding.server-wait': 'The server takes {waitMs} to answer the document',
	'finding.server-wait.detail':
		'That is most of the first byte, and more than the {mostMs} that leave room for the rest.',
	'finding.server-wait.advice':
		'Look at what the server does for this page: its queries, its plugins, its remote calls. | Serve it from a page cache, for visitors who are not signed in at least. | Ask the host what the machine is busy with.',
	'finding.redirects': '{n, plural, one {A redirect} other {# redirects}} before the document',
	'finding.redirects.detail': 'Visitors end up at {to}; each hop costs a round trip and the server’s time.',
	'finding.redirects.advice':
		'Link to the final address everywhere: menus, sitemap, campaigns. | Let one redirect lead straight to it.',
	'finding.page-cache-miss': 'The document came past the page cache',
	'finding.page-cache-miss.detail': 'A cache header says that it was made anew; the server took {waitMs}.',
	'finding.page-cache-miss.advice':
		'See why it is not kept: a cookie, a parameter in the address, a header that forbids it, a lifetime that is over. | Fill the cache after a purge.',
	'finding.text-plain-sent':
		'{n, plural, one {A text file} other {# text files}} of {resource} {n, plural, one {is} other {are}} sent without compression',
	'finding.text-plain-sent.detail': 'gzip would save {saved} of {bytes}. The largest: {files}.',
	'finding.text-plain-sent.advice':
		'Switch on gzip or Brotli on the server or the CDN for text: HTML, CSS, scripts, JSON, SVG.',
	'finding.short-lifetime':
		'{n, plural, one {A file} other {# files}} of {resource} {kept, select, no {must be asked for at each visit} other {{n, plural, one {is} other {are}} kept for {lifetime} only}}',
	'finding.short-lifetime.detail': 'A repeat visit asks for {bytes} again. The largest: {files}.',
	'finding.short-lifetime.advice':
		'Put a version into the file’s address. | Then let browsers keep it for a year: cache-control: max-age=31536000, immutable.',
	'finding.old-protocol': '{n} requests to {host} over HTTP/1.1',
	'finding.old-protocol.detail': 'A browser opens six connections to a host: the others wait for their turn.',
	'finding.old-protocol.advice': 'Switch on HTTP/2 or HTTP/3 on the server or the CDN.',
	'finding.style-in-the-way': 'The first paint waits for {resource}',
	'finding.style-in-the-way.detail':
		'{isFar, plural, one {It comes from another host.} other {{share} of it matches nothing on this page ({bytes}).}}',
	'finding.style-in-the-way.advice':
		'Put what the first screen needs into the document. | Load the rest without blocking, or split it by template. | Serve it from the site’s own host.',
	'finding.script-in-the-way': 'The first paint waits for {resource}, {share} of which never runs',
	'finding.script-in-the-way.detail':
		'A script in the head without defer or async stops the parser; this one has {bytes}.',
	'finding.script-in-the-way.advice': 'Give it defer. | If it must run first, split off what is needed then.',
	'finding.style-chain': '{resource} is asked for by another style sheet',
	'finding.style-chain.detail': '{parent} imports it, so that it is asked for only once that has come.',
	'finding.style-chain.advice': 'Link it in the document, or join the two files.',
	'finding.largest-late-found': 'The largest picture is asked for {lateMs} after the document began to come',
	'finding.largest-late-found.detail':
		'{by, select, none {The document does not name it early.} other {It is found only by way of {by}.}}',
	'finding.largest-late-found.advice':
		'Put it into the markup as an img element, not as a background of a style sheet. | Or preload it in the head, with fetchpriority=high.',
	'finding.largest-lazy': 'The largest picture is told to wait',
	'finding.largest-lazy.detail': '{how, select, lazy {It has loading=lazy.} other {A script puts it in: {script}.}}',
	'finding.largest-lazy.advice':
		'Take loading=lazy off the pictures of the first screen. | Let the markup name it, not a script.',
	'finding.largest-without-priority': 'The largest picture waits behind {bytes} of other files',
	'finding.largest-without-priority.detail':
		'{n, plural, one {One file} other {# files}} that nobody waits for came in its time; its priority is {priority}.',
	'finding.largest-without-priority.advice': 'Give it fetchpriority=high. | Load the others later.',
	'finding.largest-faded-in': 'The largest picture is painted {delayMs} after it could be',
	'finding.largest-faded-in.detail':
		'It had come, the page was painting, and the main thread was free: a transition or a hidden state holds it back.',
	'finding.largest-faded-in.advice': 'Show it without a transition. | Do not hide the page until a script has run.',
	'finding.connection-late': '{host} is first connected to {lateMs} after the document began to come',
	'finding.connection-late.detail': 'A paint waits for it; connecting takes {connecting}.',
	'finding.connection-late.advice':
		'Name the host with rel=preconnect in the head. | Or serve the file from the site’s own host.',
	'finding.text-hidden': 'Text is hidden for {hiddenMs} until {resource} has come',
	'finding.text-hidden.detail': 'The font-display of {families} hides text meanwhile.',
	'finding.text-hidden.advice': 'Set font-display: swap or optional. | Preload the font that the first screen needs.',
	'finding.picture-too-large': '{resource} has {times} times the pixels that are shown',
	'finding.picture-too-large.detail': '{width} × {height}; this screen shows {neededWidth} × {neededHeight}.',
	'finding.picture-too-large.advice':
		'Upload it at the size that is shown, or let the platform make sizes of it. | Offer them by srcset and sizes.',
	'finding.picture-without-room': 'A picture without dimensions moves the page by {shift}',
	'finding.picture-without-room.detail': '{resource} gets its room only when {url} has come.',
	'finding.picture-without-room.advice': 'Give it width and height, or an aspect-ratio in the style.',
	'finding.picture-early': '{resource} is below the first screen and loaded at once',
	'finding.picture-early.detail': 'Its {bytes} came before the largest paint.',
	'finding.picture-early.advice': 'Give it loading=lazy.',
	'finding.media-preloaded': '{bytes} of {resource} before anybody plays it',
	'finding.media-preloaded.detail': 'The browser fetches it with the page.',
	'finding.media-preloaded.advice': 'Set preload=none and show a still picture. | Start it when it is pressed.',
	'finding.font-format': '{resource} is not WOFF2',
	'finding.font-format.detail': 'It has {bytes} as {type}.',
	'finding.font-format.advice': 'Convert it to WOFF2 and name that first in @font-face.',
	'finding.font-many': '{n} files of the font {family}',
	'finding.font-many.detail': 'Each weight and style is a file of its own.',
	'finding.font-many.advice': 'Keep the weights that the design uses. | Or use one variable font.',
	'finding.font-far': 'Text waits for a font from {host}',
	'finding.font-far.detail': 'Looking it up and connecting takes {connectMs} before the file can come.',
	'finding.font-far.advice': 'Serve the font from the site’s own host.',
	'finding.task-long': '{resource} keeps the main thread busy for {ms}',
	'finding.task-long.detail':
		'In {n, plural, one {one long task} other {# long tasks}}{functions, select, none {} other {, above all in {functions}}}.',
	'finding.task-long.advice':
		'See whether the page needs it at all. | Load it later, or only where it is used. | Split its work into shorter pieces.',
	'finding.script-never-run': '{share} of {resource} never ran',
	'finding.script-never-run.detail': 'That is {bytes} on the wire, on this page until it had settled.',
	'finding.script-never-run.advice': 'Load it on the pages that use it. | Split it, so that each page gets its part.',
	'finding.style-never-matched': '{share} of {resource} matches nothing here',
	'finding.style-never-matched.detail': 'That is {bytes} on the wire, on this page until it had settled.',
	'finding.style-never-matched.advice': 'Cut the rules that no page uses. | Split the sheet by template.',
	'finding.library-twice': '{resource} is the same file as another one',
	'finding.library-twice.detail': 'Its {bytes} came already from {first}.',
	'finding.library-twice.advice': 'Use one address. | See which plugin brings the second copy.',
	'finding.style-recalculated': '{resource} forces layout for {ms}',
	'finding.style-recalculated.detail': 'It asks for sizes right after it has changed something, again and again.',
	'finding.style-recalculated.advice': 'Read all sizes first, then change. | Use a later version of the plugin.',
	'finding.inline-weight': '{share} of the document is code and data inside it',
	'finding.inline-weight.detail':
		'{bytes} in {n, plural, one {one element} other {# elements}}; the largest begins with “{start}”.',
	'finding.inline-weight.advice': 'Put it into files that browsers can keep. | Leave out what this page does not use.',
	'finding.shift-by-font': '{resource} moves by {shift} when a font comes',
	'finding.shift-by-font.detail': 'Just before, {by} had come.',
	'finding.shift-by-font.advice':
		'Match the fallback’s size to the font: size-adjust, ascent-override. | Preload the font.',
	'finding.shift-by-picture': '{resource} moves by {shift} when a picture comes',
	'finding.shift-by-picture.detail': '{by} has no dimensions in the markup.',
	'finding.shift-by-picture.advice': 'Give the picture width and height, or an aspect-ratio.',
	'finding.shift-by-insertion': '{resource} moves by {shift}',
	'finding.shift-by-insertion.detail': 'Something was put in above it, or its style changed.',
	'finding.shift-by-insertion.advice': 'Keep room for what comes later. | Put it in below, or over the page.',
	'finding.slot-empty': '{resource} keeps {width} × {height} and stays empty',
	'finding.slot-empty.detail': 'Room for something that never comes.',
	'finding.slot-empty.advice': 'Ask whose room it is, and why it is not filled. | Take it out of the template.',
	'finding.step-slow': '{resource}: the next paint comes after {ms}',
	'finding.step-slow.detail': 'A response of more than 200 ms is felt.',
	'finding.step-slow.advice': 'Paint the answer first, do the work after it. | Look at what the handler calls.',
	'finding.going-back-slow': 'The way back loads the page anew',
	'finding.going-back-slow.detail': 'cache-control: no-store keeps browsers from showing it at once.',
	'finding.going-back-slow.advice': 'Use no-cache where nothing secret is shown.',
	'finding.third-party-cost': '{resource}: {bytes} in {n, plural, one {one request} other {# requests}}',
	'finding.third-party-cost.detail':
		'{threadMs, plural, =0 {No long task of its own} other {{threadWords} of main thread}}{tailMs, plural, =0 {} other {, and the page loads {tailWords} longer for it}}.',
	'finding.third-party-cost.advice':
		'Ask who needs it, and what it brings. | Start it later, or when it is asked for. | Ask its maker for a lighter version.',
	'finding.works-late':
		'{n, plural, one {A request} other {# requests}} only {resource, select, postponed {after the page had settled} other {at the first sign of life}}',
	'finding.works-late.detail': '{bytes} that the figures of the load do not show.',
	'finding.works-late.advice': 'Judge the page with patient and nudged loads, too.',
	'finding.broken-request': '{resource} does not come',
	'finding.broken-request.detail':
		'{status, plural, =0 {It failed: {failed}.} other {Its status is {status, number, ::group-off}.}}',
	'finding.broken-request.advice': 'Take the address out, or put the file back.',
	'finding.console-error': 'An error in the console',
	'finding.console-error.detail': '{resource}',
	'finding.console-error.advice': 'See what no longer works behind it. | Mend it, or take the script out.',
	'finding.large-page':
		'{what, select, elements {The page has {n} elements} depth {Elements lie {n} deep inside each other} other {One element has {n} children}}',
	'finding.large-page.detail': 'Style, layout and every script that looks at the page cost more for it.',
	'finding.large-page.advice': 'Leave out wrappers that the builder adds. | Load long lists in pieces.',
	'finding.text-weakly-packed':
		'{n, plural, one {A text file} other {# text files}} of {resource} {n, plural, one {is} other {are}} packed with gzip where Brotli saves {saved}',
	'finding.text-weakly-packed.detail': 'Of {bytes} that are sent. The largest: {files}.',
	'finding.text-weakly-packed.advice':
		'Switch on Brotli on the server or the CDN. | Pack static files once, at the highest quality.',
	'finding.cookie-weight': '{bytes} of cookies go up with static files of {resource}',
	'finding.cookie-weight.detail': 'With {n, plural, one {one file} other {# files}}: {share} of what is sent for them.',
	'finding.cookie-weight.advice':
		'Serve static files from a host without cookies. | Give cookies a path, and leave out what nobody reads.',
	'finding.picture-old-format': '{resource} would be {saved} smaller as {best}',
	'finding.picture-old-format.detail':
		'{left} instead of {bytes} as {format}, at the same size and alike to the eye (mean SSIM of 0.98 or more).',
	'finding.picture-old-format.advice':
		'Let the platform make it and offer it by the picture element. | Keep the old file for what cannot read it.',
	'finding.picture-poorly-packed': '{resource} would be {saved} smaller when saved better',
	'finding.picture-poorly-packed.detail':
		'{left} instead of {bytes}, in the same format and size and alike to the eye (mean SSIM of 0.98 or more).',
	'finding.picture-poorly-packed.advice': 'Save it at a lower quality, or let an image plugin do it.',
	'finding.animation-as-picture': '{resource} is an animation saved as a picture',
	'finding.animation-as-picture.detail': 'It has {bytes}. A video of the same is usually far smaller.',
	'finding.animation-as-picture.advice':
		'Make a short muted video of it that plays by itself. | Or show a still picture, and the animation when it is pressed.',
	'finding.picture-same-twice': '{resource} is the same picture as another one',
	'finding.picture-same-twice.detail': 'Its {bytes} came already from {first}.',
	'finding.picture-same-twice.advice': 'Use one address for it everywhere.',
	'finding.font-unused-signs': '{resource} holds {signs} signs, of which {drawn} are drawn',
	'finding.font-unused-signs.detail': 'With those alone it would be {saved} smaller than its {bytes}.',
	'finding.font-unused-signs.advice':
		'Make a subset of the signs that the site’s languages use. | Split it by unicode-range, so that the rest comes only where it is needed.',
	'finding.font-not-drawn': '{resource} is fetched, and nothing is drawn with it',
	'finding.font-not-drawn.detail': 'Its {bytes} come in the way of what is drawn.',
	'finding.font-not-drawn.advice': 'Take its preload out, or the rule that asks for it.',
	'finding.icons-as-font': '{drawn} of {signs} icons of {resource} are drawn',
	'finding.icons-as-font.detail': 'The icon font {family} has {bytes}; the icons that are drawn take {saved} less.',
	'finding.icons-as-font.advice': 'Put the icons that are used into the page as SVG. | Take the icon font out.',
	'finding.not-minified': '{resource} would be {saved} smaller without spaces and comments',
	'finding.not-minified.detail': 'That is {share} of {bytes}, packed as the host packs it.',
	'finding.not-minified.advice': 'Minify it when it is built, or let an optimiser do it.',
	'finding.for-old-browsers': '{resource} brings code for browsers of long ago',
	'finding.for-old-browsers.detail':
		'{n, plural, one {A known helper} other {# known helpers}}, {names} among them: today’s browsers have what they stand in for.',
	'finding.for-old-browsers.advice':
		'Build it for today’s browsers. | Ask its maker for a modern build, or take a later version.',
	'finding.writes-document': '{resource} writes into the document while it is read',
	'finding.writes-document.detail': 'document.write holds the parser up until what it writes has come.',
	'finding.writes-document.advice':
		'Put its element into the markup. | Load it with async, or take a version that does.',
	'finding.press-lost':
		'{resource} is seen, and {how, select, moved {moves away under the finger} covered {is covered when it is pressed} other {does nothing when it is pressed}}',
	'finding.press-lost.detail': 'Pressed {afterMs} after the first paint.',
	'finding.press-lost.advice':
		'Let it work from its markup: a link, a form, a details element. | Or show it only once its script is there.',
	'finding.third-party-unconfirmed':
		'{why, select, unseen {Nothing of {resource} is seen} other {Nobody has confirmed {resource}}}',
	'finding.third-party-unconfirmed.detail':
		'{bytes} in {n, plural, one {one request} other {# requests}}{purpose, select, none {; nobody has written down what it is for} other {; written down as: {purpose}}}.',
	'finding.third-party-unconfirmed.advice':
		'Ask the client whether it is still wanted. | Take it out where it is not, and confirm it in the register where it is.',
	'finding.starts-unasked': '{resource} starts before anybody asks for it',
	'finding.starts-unasked.detail': '{purpose}: {bytes} in {n, plural, one {one request} other {# requests}}.',
	'finding.starts-unasked.advice':
		'Show a still picture or a button in its place, and load it when it is pressed. | Check that the lab sees it work then.',
	'finding.limit.gone': 'Done when three good loads no longer show it.',
	'finding.limit.most': 'Done when three good loads show at most {most}.',
	'finding.who.editor': 'Editor',
	'finding.who.developer': 'Developer',
	'finding.who.host': 'Host',
	'finding.who.third-party': 'Third party',
	'finding.effort.hour': 'an hour',
	'finding.effort.day': 'a day',
	'finding.effort.more': 'more',
	'finding.step': 'Findings: {parts}.',
	'finding.step.gone': '{n} gone ({rules})',
	'finding.step.new': '{n} new ({rules})',
	'finding.step.left': '{n} left',
	'finding.fate.gone': 'gone',
	'finding.fate.left': 'left',
	'finding.fate.new': 'new',
	'finding.fate.not-seen': 'not seen this time',
	'side.title': 'Title missing, very short or very long',
	'side.description': 'Description missing, very short or very long',
	'side.language': 'The page does not say its language',
	'side.viewport': 'The viewport does not fit the device, or forbids zooming',
	'side.headings': 'Headings out of order, or not one first heading',
	'side.robots': 'Search engines are asked to leave the page out',
	'side.canonical': 'The canonical address cannot be read',
	'side.links': 'Links without words',
	'side.https': 'Not encrypted',
	'side.deprecated': 'Calls that browsers are about to drop',
	'cause.pages': 'on {k} of {m, plural, one {one page} other {# pages}}',
	'cause.visits': ', {visits} of visits',
	'cause.loads': ', in {k} of {n} loads',
	'cause.rank':
		'Here because: {size} {n, plural, one {margin} other {margins}} where it costs most{hurts, select, none {} other {, doubled since {hurts} misses its target there}}, times {reach}{effort, select, hour {} day {, halved for a day’s work} other {, a quarter for more than a day’s work}}.',
	'cause.rank.visits': '{visits} of visits',
	'cause.rank.pages': '{k} of {m} pages',
	'cause.type': '{type} ({k} of {m})',
	'way.found':
		'Shortest way: {causes} {isOne, select, yes {alone brings} other {together bring}} {pages, plural, one {the page that is} other {all # pages that are}} over the target of bytes within it{isSmallest, select, yes {} other {; a shorter way may exist}}.',
	'way.none':
		'All computed savings together do not bring {pages, plural, one {the page that is} other {the # pages that are}} over the target of bytes within it.',
	'way.unknown':
		'How far each mend brings {metrics} to the target is not known before it is tried: bytes are computed, times are measured.'
} as const;
