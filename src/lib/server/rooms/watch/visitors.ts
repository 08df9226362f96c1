/** As whom watched pages are loaded: anonymous, or in a visitor state of their site. */
import { stateLacksSecrets } from '$core/load/journey/visitorState';
import type { Db } from '../../base/db/connection';
import { NotPossible } from '../../base/refusal';
import type { Watch } from './queries/watches';
import { visitorStates } from '../clients/view';

/** @throws NotPossible when one is gone, or lacks secrets that stayed with another Zafra */
export function checkVisitors(db: Db, { clientId, settings }: Pick<Watch, 'clientId' | 'settings'>): void {
	const all = visitorStates(db, clientId);
	for (const id of settings.states ?? []) {
		const found = all.find((own) => own.id === id);
		if (!found)
			throw new NotPossible(409, 'A visitor state of this watch was deleted: choose another in its settings.');
		if (stateLacksSecrets(found.state))
			throw new NotPossible(
				409,
				`The visitor state “${found.state.name}” lacks its cookies or passwords: give it new ones at its site.`
			);
	}
}
