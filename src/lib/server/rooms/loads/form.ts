/** Forms of single loads. */
import * as v from 'valibot';
import { Text, Tick } from '../../http/fields';

export const LoadFields = v.object({
	url: Text,
	conditions: Text,
	nudge: Tick,
	patience: Tick,
	repeat: Tick,
	steps: Text,
	state: Text,
	clientId: Text
});
export const HarFields = v.object({ clientId: Text });
export const TapFields = v.object({ selector: Text, effect: Text });
