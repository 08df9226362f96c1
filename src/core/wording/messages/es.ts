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
	'reason.presence': '«{stage}» queda en espera: «{check}» se cumplió en {met} de {loads} cargas.',
	'reason.no-drift-check':
		'Sin evaluar: nada muestra cuánto derivó el entorno entre las etapas. Lo muestra una página de referencia en cada etapa, o una última etapa en la que se deshace el cambio.',
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
	'metric.stepShown': 'tiempo hasta el contenido del paso',
	'metric.stepQuiet': 'tiempo hasta que el paso queda estable',

	'answer.noise.none': 'Todavía no se conoce el ruido. {reason}',
	'answer.noise.differs':
		'Dos series de la misma página dieron resultados distintos en {metrics}: no confíe en diferencias pequeñas en estas condiciones.',
	'answer.noise.floor':
		'No se encontró ninguna diferencia entre dos series de la misma página; lo que sea menor que esto no se distingue del ruido: {floor}.{more}',
	'answer.noise.short': 'No se encontró ninguna diferencia entre dos series de la misma página.',
	'answer.noise.more': ' Más rondas lo reducirían para {metrics}.',
	'answer.pages': 'Las {n} páginas',

	'answer.lead.yes': 'Sí.',
	'answer.lead.no': 'No.',
	'answer.lead.hardly': 'Apenas.',
	'answer.lead.open': 'Aún no está decidido.',
	'answer.lead.later': 'Solo al principio.',
	'answer.put-off.postponed':
		'En una carga, lo que «{arm}» ahorra en {metrics} volvió por sí solo {after} después de que la página quedara estable.',
	'answer.put-off.held-back':
		'En una carga, lo que «{arm}» ahorra en {metrics} volvió en cuanto el visitante se movió.',
	'answer.plain.difference': '«{arm}» es {words} que «{baseline}».',
	'answer.plain.mixed': '«{arm}» es {better}, pero {worse} que «{baseline}».',
	'answer.plain.slight': '«{arm}» es {words} que «{baseline}»; no está decidido cuánto.',
	'answer.plain.joint':
		'Lo que muestra «{arm}» frente a «{baseline}» en {open} no supera el azar en el conjunto de todo lo que la prueba decide.',
	'answer.asked.same': 'Ninguna diferencia que importe en {metrics}.',
	'answer.word-in': '{word} en {metrics}',
	'answer.plain.open': 'Aún no se puede decir si «{arm}» y «{baseline}» difieren en {open}.',
	'answer.plain.same': '«{arm}» y «{baseline}» no muestran ninguna diferencia que importe.',
	'answer.plain.same-in': '«{arm}» y «{baseline}» no muestran ninguna diferencia que importe en {same}. {reason}',
	'answer.plain.none': 'No hay veredicto sobre «{arm}». {reason}',
	'answer.best.best':
		'«{arm}» es la mejor de estas {n}: mejor que cada una de las otras en algo, y en nada por detrás más allá del margen.',
	'answer.best.equal':
		'{names} son igual de buenas: ninguna diferencia que importe entre ellas, y ninguna otra va por delante con una que importe.',
	'answer.best.trade': 'Ninguna de estas {n} es la mejor en todo.',
	'answer.best.open': 'No está decidido cuál de estas {n} es la mejor.',
	'answer.best.none': 'Sin veredicto sobre cuál es la mejor. {reason}',
	'answer.best.extreme': '«{arm}» es {words} que todas las demás.',
	'answer.best.price': '«{arm}» {price}',
	'answer.best.prices': 'Precio al mes: {prices}.',
	'answer.best.unknown-price': 'desconocido',
	'step.broke': 'Se rompió: {parts}.',
	'step.back': 'La página ha vuelto: ninguna diferencia que importe con lo que era.',
	'step.perhaps-back': 'No está decidido si la página ha vuelto a donde estaba: {metrics}.',
	'step.not-back': 'La página no ha vuelto a donde estaba. {shifts}',
	'range.same': '{middle} en las {n}',
	'range.some': '{middle}, de {least} a {most} en {n}',
	'place.nth':
		'{n, select, 1 {primera} 2 {segunda} 3 {tercera} 4 {cuarta} 5 {quinta} 6 {sexta} 7 {séptima} 8 {octava} other {{n}}}',
	'place.either': '{from} o {to}',
	'place.range': '{from} a {to}',
	'place.open': 'sin decidir',
	'answer.group.same': 'Sin diferencia que importe: {names}.',
	'answer.group.undecided': 'Sin decidir: {names}.',
	'answer.group.none': 'Sin veredicto: {names}.',
	'answer.detail.largest': 'La mayor diferencia: {metric}, {size} {direction, select, more {más} other {menos}}.',
	'answer.detail.range':
		'La mayor diferencia: {metric}, de {least} a {most} {direction, select, more {más} other {menos}}.',
	'answer.detail.slight': 'Además, {words}; no está decidido cuánto.',
	'answer.detail.joint':
		'{metrics} no {n, plural, one {supera} other {superan}} el azar en el conjunto de todo lo que la prueba decide.',
	'answer.detail.open': '{metrics} {n, plural, one {no está decidido} other {no están decididos}}.',

	'answer.target.both-met': 'Ambas cumplen el objetivo: {metrics}.',
	'answer.target.crosses': 'Solo «{name}» cumple el objetivo: {metrics}.',
	'answer.target.both-missed': 'Ninguna cumple el objetivo: {metrics}.',

	'board.wire': 'Bytes',
	'board.slight': '{word}, no está decidido cuánto',
	'board.put-off.postponed': 'vuelve más tarde',
	'board.put-off.held-back': 'vuelve al interactuar',
	'board.same': 'sin diferencia que importe',
	'board.exact': 'idéntico en todas las rondas',
	'board.undecided': 'sin decidir',
	'board.none': 'sin veredicto',
	'board.better': 'mejor',
	'board.within': 'dentro del margen',
	'board.worse': 'peor',

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
	'verdict.slight': '{word}; no está decidido cuánto',
	'verdict.same': 'sin diferencia práctica',
	'verdict.undecided': 'sin decidir',
	'verdict.none': 'sin veredicto',
	'verdict.joint': 'No supera el azar en el conjunto de todo lo que la prueba decide.',

	'target.both-met': 'Ambas cumplen el objetivo.',
	'target.crosses': 'Solo «{name}» cumple el objetivo.',
	'target.both-missed': 'Ninguna cumple el objetivo.',

	'more.unknown': 'Más rondas quizá decidan {metrics}.',
	'more.beyond':
		'Harían falta más de {most} rondas para decidir {metrics}: ayuda más una máquina más tranquila o un margen más amplio.',
	'more.few': 'Unas pocas rondas más probablemente decidirían {metrics}.',
	'more.rounds': 'Con {rounds, plural, one {# ronda} other {# rondas}} en total probablemente se decidiría: {metrics}.'
};
