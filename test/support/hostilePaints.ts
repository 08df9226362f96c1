/** Pages that keep the browser from painting, or lead it to where nothing is. */
import type { HostilePage } from './hostile';

const script = (code: string) => `<script>${code}</script>`;
const many = (count: number, style: string) =>
	script(
		`for (let i = 0; i < ${count}; i++) { const e = document.createElement('div'); e.style.cssText = '${style}'; e.textContent = 'x'; document.documentElement.append(e) }`
	);
const SPINS = '<style>@keyframes spin { to { transform: rotate(360deg) scale(1.5) } }</style>';
/** It may paint or not, and the browser may have to go: only the loads after it must be as they were. */
const ANY_PAINT: HostilePage['ends'] = [
	'ok',
	'time-out',
	'crash',
	'nothing-painted',
	'browser-blind',
	'browser-killed'
];

export const HOSTILE_PAINTS: HostilePage[] = [
	{
		name: 'thirty large filters, animated',
		html: `${SPINS}${many(30, 'position:fixed;inset:-50%;background:rgba(9,90,40,.4);filter:blur(60px) drop-shadow(0 0 90px red) saturate(3);animation:spin 1s linear infinite')}`,
		ends: ANY_PAINT
	},
	{
		name: 'backdrop filters one above the other, animated',
		html: `${SPINS}${many(60, 'position:fixed;inset:-20%;backdrop-filter:blur(40px) invert(1);animation:spin .7s linear infinite')}`,
		ends: ANY_PAINT
	},
	{
		name: 'three thousand layers of their own',
		html: `${SPINS}${many(3000, 'position:absolute;width:900px;height:900px;will-change:transform;animation:spin 2s linear infinite;background:rgba(0,0,0,.01)')}`,
		ends: ANY_PAINT
	},
	{
		name: 'turbulence as large as the page',
		html: `${SPINS}<svg width="4000" height="4000" style="animation:spin 1s infinite"><filter id="t"><feTurbulence baseFrequency=".02" numOctaves="20"/><feGaussianBlur stdDeviation="80"/></filter><rect width="4000" height="4000" filter="url(#t)"/></svg>`,
		ends: ANY_PAINT
	},
	{
		name: 'canvases larger than any screen',
		html: script(
			`window.kept = []; for (let i = 0; i < 12; i++) { const c = document.createElement('canvas'); c.width = c.height = 8000; c.getContext('2d').fillRect(0, 0, 8000, 8000); document.documentElement.append(c); kept.push(c) }`
		),
		ends: ANY_PAINT
	},
	{
		name: 'two hundred drawing contexts of WebGL',
		html: script(
			`window.kept = []; for (let i = 0; i < 200; i++) { const c = document.createElement('canvas'); const g = c.getContext('webgl'); g?.clear(16384); document.documentElement.append(c); kept.push(g) }`
		),
		ends: ANY_PAINT
	},
	{
		name: 'letters as large as a town',
		html: '<p style="font-size:1e6px;text-shadow:0 0 9999px red,0 0 9999px blue">Words</p>',
		ends: ANY_PAINT
	},
	{ name: 'nothing that can be seen', html: '<style>html { visibility: hidden }</style>', ends: ['nothing-painted'] },
	{ name: 'a page without size', html: '<style>html { display: none }</style>', ends: ['nothing-painted'] },
	{
		name: 'leaving for a host that is not there',
		html: script(`setTimeout(() => (location.href = 'http://no-such-host.invalid/'), 300)`),
		ends: ['error-page']
	},
	{
		name: 'leaving for this machine',
		html: script(`setTimeout(() => (location.href = 'http://127.0.0.1:{port}/left'), 300)`),
		ends: ['error-page']
	},
	{
		name: 'being sent on by a tag to where nothing is',
		html: '<meta http-equiv="refresh" content="0.2;url=http://no-such-host.invalid/">',
		ends: ['error-page']
	},
	{
		name: 'leaving for the blank page',
		html: script(`setTimeout(() => location.replace('about:blank'), 300)`),
		ends: ['ok', 'nothing-painted']
	},
	{
		name: 'writing itself anew without end',
		html: script(
			`setInterval(() => { document.open(); document.write('<h1>Again</h1>' + Math.random()); document.close() }, 60)`
		),
		ends: ['ok', 'time-out', 'nothing-painted']
	}
];
