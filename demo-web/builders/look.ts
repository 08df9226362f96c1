/** How a site looks, whatever builds it: the one style sheet that all builders share in substance. */
import type { SiteModel } from '../content/model';

export function lookOf({ look }: SiteModel): string {
	const [far, middle, near] = look.palette;
	return `:root{--far:${far};--middle:${middle};--near:${near};--accent:${look.accent};--paper:${look.paper};--ink:${look.ink}}
*{box-sizing:border-box}
body{margin:0;font:17px/1.6 "${look.bodyFont}",Arial,sans-serif;color:var(--ink);background:var(--paper)}
h1,h2{font-family:"${look.titleFont}",Georgia,serif;line-height:1.15;font-weight:600;margin:.8em 0 .4em}
h1{font-size:2.3rem}h2{font-size:1.35rem}
a{color:var(--near)}
.site-head{background:var(--near);color:#fff;display:flex;flex-wrap:wrap;gap:10px 28px;align-items:center;padding:14px 24px}
.site-head a{color:#fff;text-decoration:none}.site-head .name{font:600 1.5rem "${look.titleFont}",Georgia,serif}
.site-head nav{display:flex;gap:20px}.site-head nav a[aria-current]{border-bottom:2px solid var(--far)}
.menu-button{display:none;font:inherit;background:none;border:1px solid #fff;color:#fff;padding:4px 12px}
main{max-width:1080px;margin:0 auto;padding:0 24px 48px}
img{max-width:100%;height:auto;display:block}
.hero{position:relative;margin:0 -24px}.hero img{width:100%;aspect-ratio:20/9;object-fit:cover;background:var(--middle)}
.hero-words{background:var(--paper);padding:18px 28px;max-width:620px;margin:-70px auto 0 24px;position:relative}
.button{display:inline-block;font:inherit;background:var(--accent);color:#fff;border:0;padding:10px 20px;text-decoration:none;cursor:pointer}
.notice{background:var(--far);color:#14212b;padding:10px 16px}
.cards{display:grid;grid-template-columns:repeat(auto-fit,minmax(240px,1fr));gap:20px;margin:24px 0}
.card{background:#fff;color:inherit;text-decoration:none;border:1px solid var(--far)}.card h2,.card p{margin:10px 14px}.card img{width:100%;aspect-ratio:3/2;object-fit:cover}
.gallery{columns:3 220px;gap:12px}.gallery img{width:100%;margin-bottom:12px}
.wide{overflow-x:auto}table{border-collapse:collapse;width:100%;background:#fff}th,td{text-align:left;padding:9px 12px;border-bottom:1px solid var(--far)}th{background:var(--far);color:#14212b}
form{display:grid;gap:6px;max-width:420px}input{font:inherit;padding:8px;border:1px solid var(--middle)}form .button{margin-top:10px;justify-self:start}
.price{font-size:1.4rem;font-weight:600}
footer{background:var(--ink);color:#fff;padding:30px 24px}
.ad-slot{min-height:0;margin:18px 0}.ad-pair{display:grid;gap:14px;margin:18px 0}.ad-slot.reserved{min-height:170px;margin:0;background:#0000000a}
.share{margin:16px 0}.share>div{display:grid;grid-template-columns:repeat(auto-fit,minmax(150px,1fr));gap:10px}.share.band{background:var(--far);color:#14212b;padding:10px 24px 18px}.share summary{cursor:pointer}
@media (max-width:700px){.menu-button{display:block;margin-left:auto}.site-head nav{display:none;width:100%;flex-direction:column}.site-head nav.open{display:flex}h1{font-size:1.8rem}.hero-words{margin:0;padding:12px 24px}}
`;
}
