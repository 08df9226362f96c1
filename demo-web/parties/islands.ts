/** The sailings of one island on the timetable: a press swaps them, an address with the island shows them at once. */
import type { Answer, Ask } from '../world';

const ISLANDS: Record<string, { name: string; times: [leaves: string, arrives: string][] }> = {
	inner: {
		name: 'Inner Skerry',
		times: [
			['06:40', '07:25'],
			['09:10', '09:55'],
			['12:30', '13:15'],
			['16:05', '16:50']
		]
	},
	outer: {
		name: 'Outer Skerry',
		times: [
			['07:15', '09:05'],
			['13:40', '15:30']
		]
	}
};
const FIRST = 'inner';

const islandOf = ({ query }: Ask): string => ((query.get('island') ?? '') in ISLANDS ? query.get('island')! : FIRST);

function partOf(island: string): string {
	const { name, times } = ISLANDS[island]!;
	const rows = times.map(([leaves, arrives]) => `<tr><td>${leaves}</td><td>${arrives}</td></tr>`).join('');
	return `<div id="sailings" data-island="${island}"><h2>To ${name}</h2><table>${rows}</table></div>`;
}

/** The page says in which frame it drew what was pressed for: the lab's step time is checked against that. */
const SCRIPT = `<script>document.querySelectorAll('[data-sailings]').forEach(function(button){button.addEventListener('click',function(){
fetch('/timetable/part?island='+button.dataset.sailings).then(function(answer){return answer.text()}).then(function(html){
document.getElementById('sailings').outerHTML=html;requestAnimationFrame(function(){var mark=performance.mark('sailings-drawn');
fetch('/timetable/drawn?ms='+mark.startTime.toFixed(1))})})})})</script>`;

/** What stands at the end of the timetable. */
export function islandPart(ask: Ask): string {
	const buttons = Object.entries(ISLANDS).map(
		([island, { name }]) => `<button type="button" data-sailings="${island}">${name}</button>`
	);
	return `<section style="padding:12px 24px">${buttons.join(' ')}${partOf(islandOf(ask))}</section>${SCRIPT}`;
}

/** The part that is swapped in, and what the page says of it; null for all else. */
export function islandAnswer(ask: Ask): Answer | null {
	const headers = { 'cache-control': 'no-store' };
	if (ask.path === '/timetable/drawn') return { status: 204, type: 'text/plain', body: '', headers };
	return ask.path === '/timetable/part' ? { type: 'text/html', body: partOf(islandOf(ask)), headers } : null;
}
