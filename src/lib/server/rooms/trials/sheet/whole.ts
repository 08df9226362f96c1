/** All that a trial's sheet can show, closed parts too: what `GET /api/trials/:id/sheet` answers. */
import type { Judgement } from '$core/trial/types';
import { wordsIn } from '$core/wording/words';
import type { Db } from '../../../base/db/connection';
import { boardsOf } from '../boardView';
import type { PutOffOf } from '$core/compare/late/putOff';
import { effectByAge } from '../effectByAge';
import type { JudgeElsewhere } from '../judgement';
import { fatesView } from '../lateView';
import { markersOf } from '../queries/notes';
import type { Trial } from '../trial';
import { drawnMetric, outlyingOf, sheetHead } from './head';
import { loadRows } from './loads';
import { sheetMaterial } from './material';
import { settlingsView } from './parts';
import { repeatsView } from './repeats';
import { worthView } from './worth';
import { currencyOfClient, languageOfClient } from '../../clients/view';

/** @param metric the one whose loads are drawn; see {@link drawnMetric} */
export async function wholeSheet(db: Db, trial: Trial, metric: string, judgeElsewhere?: JudgeElsewhere) {
	const material = await sheetMaterial(db, trial, judgeElsewhere);
	const { loads, judgement, evidence, beside } = material;
	const repeats = repeatsView(db, trial);
	const { answer: _answer, ...head } = sheetHead(material, metric);
	return {
		...head,
		metric: drawnMetric(trial.design, metric),
		clientAnswer: clientAnswer(db, trial, judgement, beside.putOff),
		worth: worthView(material),
		currency: currencyOfClient(db, trial.clientId),
		evidence: evidence.arms.length || evidence.films.length ? evidence : null,
		settlings: settlingsView(db, trial),
		markers: markersOf(db, trial.id),
		late: beside.late,
		fates: fatesView(db, trial, beside.late),
		presence: beside.presence,
		sends: beside.sends,
		repeats,
		effectByAge: repeats.length ? effectByAge(db, trial) : [],
		judgement,
		outlying: outlyingOf(material),
		loads: loadRows(trial.design, loads, drawnMetric(trial.design, metric))
	};
}

/** The answer in the client's own language; null where that is English. */
function clientAnswer(db: Db, { clientId, design, question }: Trial, judgement: Judgement, putOffOf: PutOffOf) {
	const language = languageOfClient(db, clientId);
	if (language === 'en') return null;
	return {
		language,
		boards: boardsOf(question, { design, judgement, caveats: [], words: wordsIn(language), putOffOf })
	};
}
