/** What the server tells every open page: the lab's doing and the progress of trials. */
import type { Snapshot } from './server/labs/view';

class Live {
	snapshot = $state<Snapshot | null>(null);

	/** Listen for as long as the page is open; the browser connects again by itself. */
	listen(): () => void {
		const source = new EventSource('/api/events');
		source.addEventListener('progress', (event) => {
			this.snapshot = JSON.parse((event as MessageEvent<string>).data) as Snapshot;
		});
		return () => source.close();
	}

	progressOf(trialId: number) {
		return this.snapshot?.trials.find((trial) => trial.id === trialId) ?? null;
	}
}

export const live = new Live();
