/** Made-up arms, designs and setups for tests of the core. */
import type { Component, Setup } from '$core/trial/design/setup';
import type { TrialArm, TrialDesign } from '$core/trial/types';

export const arm = (id: number, name: string, setup: Setup | null = null): TrialArm => ({
	id,
	name,
	url: 'https://a.test/',
	baseline: id === 1,
	reference: false,
	setup
});
export const design: TrialDesign = {
	kind: 'side-by-side',
	arms: [arm(1, 'A'), arm(2, 'B')],
	conditions: [],
	rounds: 8,
	warmups: 0,
	seed: 1,
	primary: ['lcp']
};
export const component = (name: string, more: Partial<Component> = {}): Component => ({
	kind: 'plugin',
	name,
	version: '',
	tier: 'unknown',
	monthlyCost: null,
	jobs: [],
	settings: '',
	...more
});
export const setup = (
	components: Component[],
	features: Record<string, boolean> = {},
	effortHours: number | null = null
): Setup => ({ components, features, effortHours });
