/** Messages about gathering the pages of a site, and about what others bring to it. */
export const gathering = {
	'gather.html': '{where} is a web page, not a sitemap. Give the address of its sitemap, often /sitemap.xml.',
	'gather.empty': '{where} is empty.',
	'gather.not-a-sitemap': '{where} is no sitemap: it is neither a list of addresses nor an index of such lists.',
	'gather.broken':
		'{where} is broken off or not well-formed{detail, plural, =0 {} other { at line #}}. What stood before that place was read.',
	'gather.raw-ampersand':
		'{where} has a “&” that should be written as “&amp;”{detail, plural, =0 {} other { (line #)}}. All of it was read; other programs may stop there.',
	'gather.too-many':
		'{where} has more than 50,000 addresses, which is the most that one sitemap may have. The first 50,000 were read.',
	'gather.too-large':
		'{where} is larger than 50 MB, which is the most that one sitemap may be. The beginning was read.',
	'gather.bad-address': '{where} names an address that cannot be opened.',
	'gather.unresolvable': 'The host {detail} was not found. Check the spelling.',
	'gather.refused': '{detail} refused the connection. Check that the site is up.',
	'gather.private-address':
		'{detail} is a private address, which Zafra does not ask. If this is meant, map the host with ZAFRA_HOST_MAP.',
	'gather.certificate': 'The certificate of {detail} was not accepted.',
	'gather.no-answer': '{detail} did not answer in time.',
	'gather.redirect-loop': '{where} redirects again and again.',
	'gather.network': '{where} could not be read: the connection broke.',
	'gather.status': '{where} answered with status {detail}.',
	'gather.off-site': '{where} redirects to another site, {detail}.',
	'gather.cycle': '{where} is named more than once: an index that leads back to itself was read once.',
	'gather.too-many-files': 'More than 500 sitemaps: {detail} were left aside, from {where} on.',
	'gather.index-file':
		'{where} is an index of {detail} other sitemaps. Import it by its address, so that these can be read.',
	'gather.robots': 'robots.txt forbids {detail, plural, one {one page} other {# pages}}, among them {where}.',
	'gather.too-deep': '{where} has more than 3,000 elements inside each other: its markup was not read.',
	'gather.given-up':
		'Reading {where} ended the lab {detail, plural, one {once} other {# times}} and was given up. What was found before is kept.',
	'gather.doing.sitemap':
		'Reading sitemaps: {asked, plural, =0 {none yet} one {one file} other {# files}}, {found, plural, one {one page} other {# pages}}',
	'gather.doing.crawl':
		'Following links: {asked, plural, =0 {no page yet} one {one page} other {# pages}} read, {found} found',
	'gather.doing.types': 'Reading the markup of pages: {asked} of {found}',
	'gather.done.sitemap': '{asked, plural, one {One sitemap} other {# sitemaps}}: {added} new, {known} known',
	'gather.done.file': 'Sitemap file: {added} new, {known} known',
	'gather.done.crawl': '{asked, plural, one {One page} other {# pages}} read: {added} new, {known} known',
	'gather.done.traffic': 'Traffic table of {asked, plural, one {one line} other {# lines}}: {added} new, {known} known',
	'gather.done.types': 'The markup of {asked, plural, one {one page} other {# pages}} was read',
	'gather.left':
		'{foreign, plural, =0 {} one {; one address of another host left aside} other {; # addresses of other hosts left aside}}{bad, plural, =0 {} one {; one line without an address} other {; # lines without an address}}{over, plural, =0 {} one {; one more than a site keeps} other {; # more than a site keeps}}',
	'host.resolver': 'Name resolved by {name}',
	'host.resolved': '{first} at first, {again} again',
	'host.address': 'Address',
	'host.connect': 'Connect',
	'host.mapped': ' (to {address}, as the host map says)',
	'host.tls': 'TLS handshake',
	'host.owner': 'Network',
	'host.no-owner': 'not known: {why}',
	'host.line':
		'{host} without the shaped line, {on}: name resolved in {lookUp}, connected in {connect}, TLS in {tls}; network: {owner}. Not part of these figures.',
	'settling.cached': 'from the cache',
	'settling.filling': 'not from the cache yet',
	'settling.silent': 'no header names a cache',
	'settling.failed': '{status, plural, =0 {no answer: {problem}} other {status {status, number, ::group-off}}}',
	'settling.at-first': '{time} at first',
	'settling.count':
		'{cached} of {pages} on {device}{cachedBefore, plural, =0 {} other {, # of them before they were asked}}{silent, plural, =0 {} one {; one names no cache} other {; # name no cache}}{failed, plural, =0 {} one {; one failed} other {; # failed}}',
	'removal.never-confirmed': 'nobody has confirmed it',
	'removal.long-unconfirmed': 'not confirmed for {months} months',
	'removal.not-seen': 'nothing of it seen on screen'
} as const;
