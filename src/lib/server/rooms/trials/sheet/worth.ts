/** Gain against price, by conditions and variant. */
import { comparisonsOf } from '$core/trial/design/comparisons';
import { worthOf } from '$core/wording/worth';
import type { SheetMaterial } from './material';
import { currencyOfClient } from '../../clients/view';

export function worthView({ db, trial, judgement: { results }, beside }: SheetMaterial) {
	const { design, clientId } = trial;
	const currency = currencyOfClient(db, clientId);
	return design.conditions.flatMap(({ id: condition }) =>
		comparisonsOf(design).map(({ arm, baseline }) => {
			const own = results.filter((result) => result.condition === condition);
			const gains = own.filter((result) => result.arm === arm.id);
			const putOff = beside.putOff(condition, arm.id, gains).map(({ metric }) => metric);
			return { condition, arm: arm.id, ...worthOf(own, baseline, arm, { putOff, currency }) };
		})
	);
}
