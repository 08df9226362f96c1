/** Cells of a simulation on both cores: the file runs itself once for each, and is asked cell by cell. */
import { fork } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const CORES = 2;

/**
 * @param file `import.meta.url` of the benchmark
 * @param tallyOf what one cell gives, as plain data
 * @returns tallies by index; null in the processes that work for it
 */
export async function tallies<Tally>(
	file: string,
	indices: readonly number[],
	tallyOf: (index: number) => Tally
): Promise<Map<number, Tally> | null> {
	if (process.send) {
		process.on('message', (index: number) => process.send!({ index, tally: tallyOf(index) }));
		return null;
	}
	const left = [...indices];
	const found = new Map<number, Tally>();
	await Promise.all(
		Array.from(
			{ length: CORES },
			() =>
				new Promise<void>((done) => {
					const child = fork(fileURLToPath(file), [], { execArgv: ['--import', 'tsx'] });
					const next = () => {
						const index = left.shift();
						if (index !== undefined) return void child.send(index);
						child.kill();
						done();
					};
					child.on('message', ({ index, tally }: { index: number; tally: Tally }) => {
						found.set(index, tally);
						next();
					});
					next();
				})
		)
	);
	return found;
}
