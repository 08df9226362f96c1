/** Where hosts really are: `pattern=address:port[/tlsPort],...`; the first match wins. */
export interface HostRule {
	/** `*.name` matches the name itself and everything below it; `*` matches all; anything else matches exactly. */
	pattern: string;
	address: string;
	port: number;
	tlsPort: number | null;
	/** The rule is not the operator's own: it may not lead to private or local addresses. */
	publicOnly?: boolean;
}

const RULE = /^([^=\s]+)=(\[[0-9a-f:]+\]|[^:/\s]+):(\d{1,5})(?:\/(\d{1,5}))?$/i;

/** @throws Error that names the rule that cannot be read and shows the right form */
export function parseHostMap(text: string | undefined, source = 'ZAFRA_HOST_MAP'): HostRule[] {
	return (text ?? '')
		.split(',')
		.map((rule) => rule.trim())
		.filter(Boolean)
		.map((rule) => {
			const match = RULE.exec(rule);
			const ports = match ? [match[3], match[4]].filter((port) => port !== undefined).map(Number) : [];
			if (!match || ports.some((port) => port < 1 || port > 65535))
				throw new Error(
					`${source}: “${rule}” cannot be read. Write pattern=address:port or pattern=address:port/tlsPort, for example *.test=127.0.0.1:4180/4143.`
				);
			return {
				pattern: match[1]!.toLowerCase(),
				address: match[2]!.replace(/^\[|\]$/g, ''),
				port: ports[0]!,
				tlsPort: ports[1] ?? null
			};
		});
}

/** What reaching a host costs beyond the line's own: for hosts whose place is known. */
export interface HostTimes {
	pattern: string;
	/** Time of the first look-up, ms; in place of the conditions' own. */
	dnsMs: number;
	extraRoundTripMs: number;
}

const TIMES = /^([^=\s]+)=(\d{1,5})\/(\d{1,5})$/;

/** `pattern=lookUpMs/extraRoundTripMs,...`. @throws Error that names the rule that cannot be read */
export function parseHostTimes(text: string | undefined): HostTimes[] {
	return (text ?? '')
		.split(',')
		.map((rule) => rule.trim())
		.filter(Boolean)
		.map((rule) => {
			const match = TIMES.exec(rule);
			if (!match)
				throw new Error(
					`ZAFRA_HOST_TIMES: “${rule}” cannot be read. Write pattern=lookUpMs/extraRoundTripMs, for example chat.test=30/15.`
				);
			return { pattern: match[1]!.toLowerCase(), dnsMs: Number(match[2]), extraRoundTripMs: Number(match[3]) };
		});
}

/** The first rule for a host, or null. */
export function ruleFor<Rule extends { pattern: string }>(host: string, rules: readonly Rule[]): Rule | null {
	const name = host.toLowerCase().replace(/\.$/, '');
	const fits = ({ pattern }: Rule) =>
		pattern === '*' ||
		pattern === name ||
		(pattern.startsWith('*.') && (name === pattern.slice(2) || name.endsWith(pattern.slice(1))));
	return rules.find(fits) ?? null;
}
