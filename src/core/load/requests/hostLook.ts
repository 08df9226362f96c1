/**
 * A host as it really is: what resolving its name takes, connecting to it, and whose network it stands in. Measured
 * from this machine without the shaped line: it stands beside the figures of loads and is never mixed with them.
 */
import * as v from 'valibot';

/** Who answers for names. */
export interface NameServer {
	name: string;
	/** "192.0.2.1:53" */
	address: string;
}

export interface Resolved {
	resolver: string;
	/** First asking, and the same again, ms; null without an answer. */
	firstMs: number | null;
	againMs: number | null;
	addresses: string[];
	/** Why there is no answer. */
	problem: string | null;
}

export interface HostLook {
	host: string;
	/** UTC ISO. */
	at: string;
	resolved: Resolved[];
	/** Where it was connected to: by the host map where that has the host. */
	address: string | null;
	isMapped: boolean;
	/** Of some connections one after the other, ms. */
	connectMs: number[];
	/** Empty for a host without encryption. */
	tlsMs: number[];
	/** "TLSv1.3" */
	tlsVersion: string | null;
	/** Why there was no connection. */
	problem: string | null;
	owner: NetworkOwner | null;
	/** Why nobody is named. */
	ownerProblem: string | null;
}

export interface NetworkOwner {
	/** Of the network, as its register calls it. */
	network: string;
	/** Who holds it; null where it is not said. */
	organisation: string | null;
	/** ISO 3166; null where it is not said. */
	country: string | null;
}

const entity = v.object({
	roles: v.optional(v.array(v.string()), []),
	/** jCard, RFC 7095: ["vcard", [[name, parameters, type, value], …]] */
	vcardArray: v.optional(v.tuple([v.string(), v.array(v.array(v.unknown()))]))
});
const RdapNetwork = v.object({
	name: v.optional(v.string(), ''),
	handle: v.optional(v.string(), ''),
	country: v.optional(v.nullable(v.string()), null),
	entities: v.optional(v.array(entity), [])
});

/**
 * The holder of a network from an answer of the Registration Data Access Protocol (RFC 9083, section 5.4).
 * @returns null for what is no such answer
 */
export function ownerFromRdap(answer: unknown): NetworkOwner | null {
	const read = v.safeParse(RdapNetwork, answer);
	if (!read.success) return null;
	const { name, handle, country, entities } = read.output;
	const holder = entities.find(({ roles }) => roles.includes('registrant')) ?? entities[0];
	const fullName = holder?.vcardArray?.[1].find(([property]) => property === 'fn')?.[3];
	if (!name && !handle) return null;
	return { network: name || handle, organisation: typeof fullName === 'string' ? fullName : null, country };
}

const SERVER = /^\s*(?:([^=]+)=)?(\[[0-9a-f:]+\]|[0-9.]+)(?::(\d{1,5}))?\s*$/i;

/** "house=192.0.2.1:53, 192.0.2.2". @throws Error in words for one that cannot be read */
export function parseNameServers(text: string | undefined): NameServer[] {
	return (text ?? '')
		.split(',')
		.filter((part) => part.trim())
		.map((part) => {
			const [, name, host, port] = SERVER.exec(part) ?? [];
			if (!host)
				throw new Error(
					`ZAFRA_RESOLVERS: “${part.trim()}” is no resolver. Write name=address:port, for example house=192.0.2.1:53.`
				);
			return { name: name?.trim() || host, address: port ? `${host}:${port}` : host };
		});
}
