/** From something seen in a load to the form of a new component, filled in. */
import type { ComponentProposal } from '$core/setups/recognition';

export function proposalLink({ name, recognition }: ComponentProposal): string {
	const { hosts, paths } = recognition;
	const kind = hosts.length ? 'third party' : 'plugin';
	return `/workshop/components/new?${new URLSearchParams({ name, kind, hosts: hosts.join('\n'), paths: paths.join('\n') })}`;
}
