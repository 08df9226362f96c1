/** Libraries that pages carry: real, valid code of a wanted size that compresses like written code does. */
import { randomFrom, seedOf, type Random } from './random';

const SYLLABLES =
	'ba be bo da de do fa fe fi ga go ha he hi ja ka ke ko la le lo ma me mi mo na ne no pa pe po ra re ri ro sa se si so ta te ti to va ve vi wa we za'.split(
		' '
	);

function word(random: Random): string {
	const count = 2 + Math.floor(random() * 3);
	return Array.from({ length: count }, () => SYLLABLES[Math.floor(random() * SYLLABLES.length)]).join('');
}

/**
 * A script of about that many bytes: a namespace of functions, most of which no page ever calls.
 * @param work how many rounds of real work it does when it runs: a few hundred are a millisecond or so on a desktop
 */
export function library(name: string, bytes: number, work = 0): string {
	const random = randomFrom(seedOf('library', name));
	const parts = [`/* ${name} */\n(function (root) {\n\tvar kit = (root.${name} = root.${name} || {});\n`];
	let size = parts[0]!.length;
	for (let i = 0; size < bytes - 260; i++) {
		const [a, b, c] = [word(random), word(random), word(random)];
		const n = Math.floor(random() * 9000);
		const body =
			i % 3 === 0
				? `\tkit.${a}${i} = function (${b}, ${c}) {\n\t\tvar found = [];\n\t\tfor (var i = 0; i < ${b}.length; i++) if (${b}[i].${c} !== ${n}) found.push(${b}[i]);\n\t\treturn found.sort().concat(${c} || "${word(random)}");\n\t};\n`
				: i % 3 === 1
					? `\tkit.${a}${i} = { ${b}: ${n}, ${c}: "${word(random)}-${word(random)}", ${word(random)}${i}: [${n % 97}, ${n % 31}, ${n % 13}] };\n`
					: `\tkit.${a}${i} = function (element) {\n\t\tif (!element || element.${b}) return "${c}";\n\t\telement.setAttribute("data-${b}", ${n});\n\t\telement.style.${i % 2 ? 'opacity' : 'transform'} = "${i % 2 ? '1' : 'none'}";\n\t\treturn element.${c} || kit.${a};\n\t};\n`;
		parts.push(body);
		size += body.length;
	}
	parts.push(
		`\tvar lines = [];\n\tfor (var r = 0; r < ${work}; r++) { var line = []; for (var k = 0; k < 24; k++) line.push("w" + ((r * 7 + k * 31) % 977)); lines.push(line.sort().join("-")); }\n\tkit.ready = lines.sort().length;\n})(window);\n`
	);
	return parts.join('');
}

/** A style sheet of about that many bytes, nearly none of which matches anything. */
export function stylesheet(name: string, bytes: number): string {
	const random = randomFrom(seedOf('stylesheet', name));
	const rules: string[] = [`/* ${name} */\n`];
	let size = 0;
	const PROPERTIES = [
		'margin',
		'padding',
		'font-size',
		'line-height',
		'border-radius',
		'letter-spacing',
		'width',
		'gap'
	];
	for (let i = 0; size < bytes; i++) {
		const property = PROPERTIES[i % PROPERTIES.length];
		const hue = Math.floor(random() * 16_777_215)
			.toString(16)
			.padStart(6, '0');
		const rule = `.${name}-${word(random)}${i % 4 ? '' : `:hover .${name}-${word(random)}`} {\n\t${property}: ${(random() * 40).toFixed(1)}px;\n\tcolor: #${hue};\n${i % 3 ? '' : '\tdisplay: flex;\n\talign-items: center;\n'}}\n`;
		rules.push(rule);
		size += rule.length;
	}
	return rules.join('');
}
