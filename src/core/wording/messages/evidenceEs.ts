/** What evidence says in reports, in Spanish: causes, what broke, what comes late, what else differs. */
import type { EvidenceKey } from './en';

const CHANGED = '{state, select, added {se añadió} gone {ya no está} other {cambió}}';
const MORE = '{direction, select, up {más} other {menos}}';
const LATER = '{direction, select, up {más tarde} other {antes}}';

export const evidenceEs: Record<EvidenceKey, string> = {
	'cause.third-party-weight': `{name} ${CHANGED}: {requests, plural, =0 {} one {# solicitud y } other {# solicitudes y }}{bytes} ${MORE}.`,
	'cause.third-party-blocking': `{name} ${CHANGED}: bloquea {shift} ${MORE}.`,
	'cause.third-party-tail': `{name} ${CHANGED}: por ello la página está completa {shift} ${LATER}.`,
	'cause.compression': `La compresión de {files, plural, one {# archivo de texto} other {# archivos de texto}} pasó de {from} a {to}: {shift} ${MORE}.`,
	'cause.files': `{group, select, images {Imágenes} scripts {Los scripts del propio sitio} styles {Hojas de estilo} fonts {Fuentes} other {El documento}}: {shift} ${MORE} ({states}).`,
	'cause.files.added': 'añadidos: {n}',
	'cause.files.gone': 'retirados: {n}',
	'cause.files.changed': 'cambiados: {n}',
	'cause.cdn':
		'Los archivos del sitio {change, select, on {llegan ahora desde su CDN} other {ya no llegan desde su CDN}}.',
	'cause.first-byte': `El primer byte del documento llega {shift} ${LATER}{cache, select, on {: ahora sale de una caché de páginas} off {: ya no sale de una caché de páginas} other {}}.`,
	'cause.discovery': `El recurso del LCP se pide {shift} ${LATER}.`,
	'cause.resource-wait': `{name} espera a su servidor {shift} ${MORE}.`,
	'cause.resource-receive': `{name} tarda {shift} ${MORE} en recibirse.`,
	'cause.render-delay': `El renderizado principal llega {shift} ${LATER} una vez recibido lo que espera.`,
	'cause.layout': `{element} se mueve ${MORE}: {shift} de CLS.`,
	'cause.step-document': `Los pasos {direction, select, up {abren más documentos enteros} other {abren menos documentos enteros y en su lugar cambian una parte de la página}}; tardan {shift} ${MORE}.`,
	'cause.step-requests': `Los pasos piden ${MORE} archivos; tardan {shift} ${MORE}.`,
	'cause.own-blocking': `Los scripts y el diseño del propio sitio bloquean {shift} ${MORE}.`,

	'late.work':
		'{n, plural, one {# solicitud} other {# solicitudes}}, {bytes} ({percent}\u00a0% de sus bytes) y {script} de script',
	'late.held-back':
		'«{arm}» espera una interacción: en una carga, {work} llegaron solo después de que el visitante se moviera.',
	'late.postponed':
		'«{arm}» aplaza trabajo: en una carga, {work} llegaron por sí solos, desde {after} después de que la página quedara estable.',

	'missed.check': '«{arm}»: «{check}» se cumplió en {met} de {loads} cargas.',
	'missed.send': '«{arm}»: {name} salió en {sent} de {loads} cargas mientras se cargaban; {fate}.',
	'missed.fate.sent': 'enviado',
	'missed.fate.late': 'por sí solo, pero a los {at}',
	'missed.fate.after-input': 'solo después de una interacción',
	'missed.fate.never': 'nunca, tampoco después de una interacción',
	'missed.fate.unknown': 'no se sabe si sale más tarde',

	'regression.sentence': 'Pero «{arm}» rompió algo: {parts}.',
	'regression.step': 'falla el paso {step}',
	'regression.errors': '{n, plural, one {# error nuevo} other {# errores nuevos}} en la consola',
	'regression.vanished': '{n, plural, one {falta # solicitud} other {faltan # solicitudes}} de la referencia',
	'regression.looks': 'difiere un {percent} % de la imagen',
	'regression.requests': '{n, plural, one {# solicitud fallida nueva} other {# solicitudes fallidas nuevas}}',

	'fair.conditions': 'Condiciones',
	'fair.browser': 'Navegador',
	'fair.machine': 'Velocidad de la máquina',
	'fair.time': 'Hora y orden',
	'fair.status': 'Estado de la página',
	'fair.redirects': 'Redirecciones',
	'fair.visitor': 'Visitante',
	'fair.cache': 'Servida desde una caché',
	'fair.compression': 'Compresión del documento',
	'fair.text-compression': 'Texto propio que llegó comprimido',
	'fair.protocol': 'Protocolo',
	'fair.host': 'Servidor',
	'fair.cdn': 'CDN propia',
	'fair.overlay': 'Aviso de consentimiento u otra capa',
	'fair.fonts': 'Fuentes web',
	'fair.third-parties': 'Terceros',
	'fair.words': 'Palabras de la página',
	'fair.picture': 'Aspecto de la página',
	'fair.tiers': 'Gratis o de pago',
	'fair.features': 'Funciones',
	'fair.failures': 'Cargas fallidas'
};
