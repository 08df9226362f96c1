/** What a client reads, in Spanish: answer, board and the reasons that stand in them. */
import type { ClientKey } from './en';

export const es: Record<ClientKey, string> = {
	'reason.no-look': 'Todavía no se ha hecho ninguna evaluación.',
	'reason.not-chosen': 'No se eligió para decidir.',
	'reason.failures': 'Fallaron {failed} de {loads} cargas de «{arm}».',
	'reason.not-measured': '{metric} no se midió en ambas variantes.',
	'reason.reference-failures':
		'Fallaron {failed} de {loads} cargas de la página de referencia en «{stage}», de modo que no se conoce la deriva entre las etapas.',
	'reason.few-rounds':
		'«{stage}» tiene {rounds, plural, one {# ronda completa} other {# rondas completas}} y se necesitan al menos {least}.',
	'reason.few-pages': 'Menos de dos páginas tienen cargas que se puedan comparar.',

	'metric.score': 'puntuación',
	'metric.lcp': 'renderizado principal',
	'metric.cls': 'cambio de diseño',
	'metric.tbt': 'tiempo de bloqueo',
	'metric.wire': 'bytes transferidos',
	'metric.inp': 'respuesta a la interacción',
	'metric.ttfb': 'primer byte',
	'metric.fcp': 'primer renderizado',
	'metric.start': 'inicio del renderizado',
	'metric.si': 'Speed Index',
	'metric.vc': 'página visualmente completa',
	'metric.dcl': 'documento listo',
	'metric.onload': 'evento de carga',
	'metric.full': 'carga completa',
	'metric.decoded': 'bytes descodificados',
	'metric.requests': 'solicitudes',
	'metric.elements': 'elementos de la página',
	'metric.depth': 'profundidad de la página',
	'metric.unusedJs': 'script sin usar',
	'metric.unusedCss': 'estilo sin usar',

	'answer.none': 'No hay veredicto sobre «{arm}». {reason}',
	'answer.mixed': '«{arm}» es {better}, pero {worse} que «{baseline}»{rest}.',
	'answer.difference': '«{arm}» es {words} que «{baseline}»{rest}.',
	'answer.slight': '«{arm}» se diferencia de «{baseline}» en {metrics}, quizá demasiado poco para que importe{rest}.',
	'answer.open':
		'No está decidido si «{arm}» se diferencia de «{baseline}»: {n, plural, one {queda abierto} other {quedan abiertos}} {metrics}.',
	'answer.same': '«{arm}» y «{baseline}» no muestran ninguna diferencia que importe.',
	'answer.same-in': '«{arm}» y «{baseline}» no muestran ninguna diferencia que importe en {metrics}. {reason}',
	'answer.rest.slight':
		'{metrics} {n, plural, one {se diferencia} other {se diferencian}}, quizá demasiado poco para que importe',
	'answer.rest.open': '{n, plural, one {no está decidido} other {no están decididos}} {metrics}',
	'answer.noise.none': 'Todavía no se conoce el ruido. {reason}',
	'answer.noise.differs':
		'Dos series de la misma página dieron resultados distintos en {metrics}: no confíe en diferencias pequeñas en estas condiciones.',
	'answer.noise.floor':
		'No se encontró ninguna diferencia entre dos series de la misma página; lo que sea menor que esto no se distingue del ruido: {floor}.{more}',
	'answer.noise.more': ' Más rondas lo reducirían para {metrics}.',
	'answer.pages': 'Las {n} páginas',

	'verdict.faster': 'más rápida',
	'verdict.slower': 'más lenta',
	'verdict.lighter': 'más ligera',
	'verdict.heavier': 'más pesada',
	'verdict.more stable': 'más estable',
	'verdict.less stable': 'menos estable',
	'verdict.more responsive': 'más ágil al responder',
	'verdict.less responsive': 'menos ágil al responder',
	'verdict.better': 'mejor',
	'verdict.worse': 'peor',
	'verdict.slight': '{word}, quizá demasiado poco para que importe',
	'verdict.same': 'sin diferencia práctica',
	'verdict.undecided': 'sin decidir',
	'verdict.none': 'sin veredicto',

	'target.both-met': 'Ambas cumplen el objetivo.',
	'target.crosses': 'Una cumple el objetivo y la otra no.',
	'target.both-missed': 'Ninguna cumple el objetivo.',

	'more.unknown': 'Más rondas quizá lo decidan.',
	'more.beyond': 'Harían falta más de {most} rondas: ayuda más una máquina más tranquila o un margen más amplio.',
	'more.few': 'Unas pocas rondas más probablemente lo decidirían.',
	'more.rounds': 'Probablemente lo decidirían {rounds, plural, one {# ronda} other {# rondas}} en total.'
};
