/** Arms of a trial as they are being written. */
import type { Setup } from '$core/trial/setup';

export interface ArmDraft {
	key: number;
	name: string;
	url: string;
	page: string;
	setup: Setup | null;
}

let key = 0;

export function armDraft(name = '', url = '', page = '', setup: Setup | null = null): ArmDraft {
	return { key: key++, name, url, page, setup };
}

/** What came back of a form that was tampered with is shown without its setup. */
export function isSetup(setup: unknown): setup is Setup {
	return Array.isArray((setup as Setup | null)?.components);
}
