/** Conditions as records hold them: with the secrets blotted out, and of any version that wrote them. */
import * as v from 'valibot';
import { about } from './described';

const DeviceConditions = v.object({
	width: about('Viewport in CSS pixels.', v.number()),
	height: v.number(),
	pixelRatio: v.number(),
	touch: v.boolean(),
	mobile: v.boolean(),
	targetSpeed: about(
		'Speed to reach, in rounds of the lab’s calibration loop per ms; null leaves the machine as it is. A speed and not a multiplier, so that a phone means the same on every machine.',
		v.nullable(v.number())
	),
	userAgent: v.nullable(v.string())
});
const NetworkConditions = v.object({
	roundTripMs: about('Round trip in ms; half of it is spent each way.', v.number()),
	downKbps: about('Link rates in kbit/s (1000 bit), shared by all connections.', v.number()),
	upKbps: v.number(),
	dnsMs: about('Time of a first look-up of each host, ms.', v.number())
});
const NameValue = v.object({
	name: v.string(),
	value: v.string()
});
const SecretHeader = v.object({
	...NameValue.entries,
	hosts: about(
		'Hosts beyond the page’s own site (registrable domain) that get it too.',
		v.optional(v.array(v.string()))
	)
});
export const ConditionsRecord = v.object({
	id: about('Key in URLs and the API: `phone`, `desktop`.', v.string()),
	name: about('As printed: "Phone", "Desktop".', v.string()),
	summary: about('One sentence for the client.', v.string()),
	device: DeviceConditions,
	network: NetworkConditions,
	place: about('Id of the place the load comes from: its round trip is added to the network’s.', v.string()),
	cache: about('`repeat` measures the second visit in the same profile.', v.picklist(['first', 'repeat'])),
	input: about(
		'`nudge` moves the pointer, scrolls and presses a key once the page has settled.',
		v.picklist(['none', 'nudge'])
	),
	block: about('Requests that never leave: patterns of addresses, `*` stands for anything.', v.array(v.string())),
	headers: about(
		'Sent with every request to the page’s own site, and to the hosts named beside each.',
		v.array(SecretHeader)
	),
	cookies: about('Set for the page’s own host before the load.', v.array(NameValue)),
	hostMap: about(
		'Host rules that go before the operator’s, in the form of ZAFRA_HOST_MAP; hosts of this machine only when the operator allows them.',
		v.string()
	),
	authentication: about(
		'Answer to HTTP authentication of the page’s host.',
		v.nullable(
			v.object({
				username: v.string(),
				password: v.string()
			})
		)
	),
	capMs: about('Longest time a load may take until it counts as capped, ms.', v.number()),
	quietMs: about('How long the page must be quiet to count as settled, ms.', v.number())
});
