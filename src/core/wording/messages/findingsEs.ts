/** The same in Spanish, as reports print it. */
import type { findings } from './findings';

/** What only the screens say is not translated. */
export type ReportedFindingKey = Exclude<
	keyof typeof findings,
	| 'finding.step'
	| `finding.step.${string}`
	| `finding.fate.${string}`
	| `cause.rank${string}`
	| 'cause.type'
	| `way.${string}`
>;

export const findingsEs: Record<ReportedFindingKey, string> = {
	'finding.server-wait': 'El servidor tarda {waitMs} en responder con el documento',
	'finding.server-wait.detail':
		'Es la mayor parte del primer byte, y más que los {mostMs} que dejan margen para lo demás.',
	'finding.server-wait.advice':
		'Mire qué hace el servidor para esta página: consultas, plugins, llamadas a otros. | Sírvala desde una caché de páginas, al menos a quienes no han iniciado sesión. | Pregunte al alojamiento en qué está ocupada la máquina.',
	'finding.redirects': '{n, plural, one {Una redirección} other {# redirecciones}} antes del documento',
	'finding.redirects.detail':
		'Los visitantes acaban en {to}; cada salto cuesta un viaje de ida y vuelta y tiempo del servidor.',
	'finding.redirects.advice':
		'Enlace siempre a la dirección final: menús, mapa del sitio, campañas. | Deje que una sola redirección lleve directamente a ella.',
	'finding.page-cache-miss': 'El documento no salió de la caché de páginas',
	'finding.page-cache-miss.detail': 'Una cabecera de caché dice que se hizo de nuevo; el servidor tardó {waitMs}.',
	'finding.page-cache-miss.advice':
		'Vea por qué no se guarda: una cookie, un parámetro en la dirección, una cabecera que lo prohíbe, una vigencia que terminó. | Llene la caché después de vaciarla.',
	'finding.text-plain-sent':
		'{n, plural, one {Un archivo de texto} other {# archivos de texto}} de {resource} {n, plural, one {se envía} other {se envían}} sin comprimir',
	'finding.text-plain-sent.detail': 'gzip ahorraría {saved} de {bytes}. Los más grandes: {files}.',
	'finding.text-plain-sent.advice':
		'Active gzip o Brotli en el servidor o la CDN para el texto: HTML, CSS, scripts, JSON, SVG.',
	'finding.short-lifetime':
		'{n, plural, one {Un archivo} other {# archivos}} de {resource} {kept, select, no {{n, plural, one {debe} other {deben}} pedirse en cada visita} other {{n, plural, one {se guarda} other {se guardan}} solo {lifetime}}}',
	'finding.short-lifetime.detail': 'Una visita repetida vuelve a pedir {bytes}. Los más grandes: {files}.',
	'finding.short-lifetime.advice':
		'Ponga una versión en la dirección del archivo. | Deje entonces que los navegadores lo guarden un año: cache-control: max-age=31536000, immutable.',
	'finding.old-protocol': '{n} solicitudes a {host} por HTTP/1.1',
	'finding.old-protocol.detail': 'Un navegador abre seis conexiones con un servidor: las demás esperan su turno.',
	'finding.old-protocol.advice': 'Active HTTP/2 o HTTP/3 en el servidor o la CDN.',
	'finding.style-in-the-way': 'Lo primero que se ve espera a {resource}',
	'finding.style-in-the-way.detail':
		'{isFar, plural, one {Viene de otro servidor.} other {Un {share} no se usa en esta página ({bytes}).}}',
	'finding.style-in-the-way.advice':
		'Ponga en el documento lo que necesita la primera pantalla. | Cargue el resto sin bloquear o divídalo por plantilla. | Sírvalo desde el propio sitio.',
	'finding.script-in-the-way': 'Lo primero que se ve espera a {resource}, del que un {share} no se ejecuta',
	'finding.script-in-the-way.detail':
		'Un script en la cabecera sin defer ni async detiene la lectura; este tiene {bytes}.',
	'finding.script-in-the-way.advice': 'Póngale defer. | Si debe ejecutarse antes, separe lo que hace falta entonces.',
	'finding.style-chain': 'Otra hoja de estilo pide {resource}',
	'finding.style-chain.detail': '{parent} la importa, así que solo se pide cuando esa ha llegado.',
	'finding.style-chain.advice': 'Enlácela en el documento o una los dos archivos.',
	'finding.largest-late-found': 'La imagen más grande se pide {lateMs} después de que el documento empezara a llegar',
	'finding.largest-late-found.detail':
		'{by, select, none {El documento no la nombra pronto.} other {Solo se encuentra a través de {by}.}}',
	'finding.largest-late-found.advice':
		'Póngala en el documento como elemento img, no como fondo de una hoja de estilo. | O precárguela en la cabecera, con fetchpriority=high.',
	'finding.largest-lazy': 'La imagen más grande tiene orden de esperar',
	'finding.largest-lazy.detail': '{how, select, lazy {Tiene loading=lazy.} other {La pone un script: {script}.}}',
	'finding.largest-lazy.advice':
		'Quite loading=lazy de las imágenes de la primera pantalla. | Deje que la nombre el documento, no un script.',
	'finding.largest-without-priority': 'La imagen más grande espera detrás de {bytes} de otros archivos',
	'finding.largest-without-priority.detail':
		'{n, plural, one {Un archivo} other {# archivos}} que nadie espera llegaron en su tiempo; su prioridad es {priority}.',
	'finding.largest-without-priority.advice': 'Póngale fetchpriority=high. | Cargue los demás más tarde.',
	'finding.largest-faded-in': 'La imagen más grande se pinta {delayMs} después de poder hacerlo',
	'finding.largest-faded-in.detail':
		'Había llegado, la página ya pintaba y el hilo principal estaba libre: la retiene una transición o un estado oculto.',
	'finding.largest-faded-in.advice': 'Muéstrela sin transición. | No oculte la página hasta que se ejecute un script.',
	'finding.connection-late':
		'La primera conexión con {host} llega {lateMs} después de que el documento empezara a llegar',
	'finding.connection-late.detail': 'Algo que debe verse la espera; conectar tarda {connecting}.',
	'finding.connection-late.advice':
		'Nombre el servidor con rel=preconnect en la cabecera. | O sirva el archivo desde el propio sitio.',
	'finding.text-hidden': 'El texto queda oculto {hiddenMs} hasta que llega {resource}',
	'finding.text-hidden.detail': 'El font-display de {families} oculta el texto mientras tanto.',
	'finding.text-hidden.advice':
		'Ponga font-display: swap u optional. | Precargue la fuente que necesita la primera pantalla.',
	'finding.picture-too-large': '{resource} tiene {times} veces los píxeles que se muestran',
	'finding.picture-too-large.detail': '{width} × {height}; esta pantalla muestra {neededWidth} × {neededHeight}.',
	'finding.picture-too-large.advice':
		'Súbala al tamaño en que se muestra o deje que la plataforma haga tamaños. | Ofrézcalos con srcset y sizes.',
	'finding.picture-without-room': 'Una imagen sin dimensiones mueve la página {shift}',
	'finding.picture-without-room.detail': '{resource} solo tiene su sitio cuando ha llegado {url}.',
	'finding.picture-without-room.advice': 'Póngale width y height, o un aspect-ratio en el estilo.',
	'finding.picture-early': '{resource} está debajo de la primera pantalla y se carga enseguida',
	'finding.picture-early.detail': 'Sus {bytes} llegaron antes del elemento más grande.',
	'finding.picture-early.advice': 'Póngale loading=lazy.',
	'finding.media-preloaded': '{bytes} de {resource} antes de que nadie lo reproduzca',
	'finding.media-preloaded.detail': 'El navegador lo trae con la página.',
	'finding.media-preloaded.advice': 'Ponga preload=none y muestre una imagen fija. | Empiécelo cuando se pulse.',
	'finding.font-format': '{resource} no es WOFF2',
	'finding.font-format.detail': 'Tiene {bytes} como {type}.',
	'finding.font-format.advice': 'Conviértala a WOFF2 y nómbrela la primera en @font-face.',
	'finding.font-many': '{n} archivos de la fuente {family}',
	'finding.font-many.detail': 'Cada grosor y estilo es un archivo propio.',
	'finding.font-many.advice': 'Quédese con los grosores que usa el diseño. | O use una sola fuente variable.',
	'finding.font-far': 'El texto espera una fuente de {host}',
	'finding.font-far.detail': 'Encontrarlo y conectar tarda {connectMs} antes de que el archivo pueda llegar.',
	'finding.font-far.advice': 'Sirva la fuente desde el propio sitio.',
	'finding.task-long': '{resource} ocupa el hilo principal {ms}',
	'finding.task-long.detail':
		'En {n, plural, one {una tarea larga} other {# tareas largas}}{functions, select, none {} other {, sobre todo en {functions}}}.',
	'finding.task-long.advice':
		'Vea si la página lo necesita. | Cárguelo más tarde, o solo donde se usa. | Divida su trabajo en partes más cortas.',
	'finding.script-never-run': 'Un {share} de {resource} no se ejecutó',
	'finding.script-never-run.detail': 'Son {bytes} enviados, en esta página hasta que quedó en reposo.',
	'finding.script-never-run.advice':
		'Cárguelo en las páginas que lo usan. | Divídalo, para que cada página reciba su parte.',
	'finding.style-never-matched': 'Un {share} de {resource} no se usa aquí',
	'finding.style-never-matched.detail': 'Son {bytes} enviados, en esta página hasta que quedó en reposo.',
	'finding.style-never-matched.advice': 'Quite las reglas que ninguna página usa. | Divida la hoja por plantilla.',
	'finding.library-twice': '{resource} es el mismo archivo que otro',
	'finding.library-twice.detail': 'Sus {bytes} ya llegaron de {first}.',
	'finding.library-twice.advice': 'Use una sola dirección. | Vea qué plugin trae la segunda copia.',
	'finding.style-recalculated': '{resource} fuerza el cálculo de posiciones durante {ms}',
	'finding.style-recalculated.detail': 'Pide tamaños justo después de cambiar algo, una y otra vez.',
	'finding.style-recalculated.advice':
		'Lea primero todos los tamaños y cambie después. | Use una versión posterior del plugin.',
	'finding.inline-weight': 'Un {share} del documento es código y datos dentro de él',
	'finding.inline-weight.detail':
		'{bytes} en {n, plural, one {un elemento} other {# elementos}}; el más grande empieza por “{start}”.',
	'finding.inline-weight.advice':
		'Póngalo en archivos que los navegadores puedan guardar. | Quite lo que esta página no usa.',
	'finding.shift-by-font': '{resource} se mueve {shift} cuando llega una fuente',
	'finding.shift-by-font.detail': 'Justo antes había llegado {by}.',
	'finding.shift-by-font.advice':
		'Ajuste la fuente de reserva a la otra: size-adjust, ascent-override. | Precargue la fuente.',
	'finding.shift-by-picture': '{resource} se mueve {shift} cuando llega una imagen',
	'finding.shift-by-picture.detail': '{by} no tiene dimensiones en el documento.',
	'finding.shift-by-picture.advice': 'Ponga a la imagen width y height, o un aspect-ratio.',
	'finding.shift-by-insertion': '{resource} se mueve {shift}',
	'finding.shift-by-insertion.detail': 'Algo se puso encima, o cambió su estilo.',
	'finding.shift-by-insertion.advice':
		'Reserve sitio para lo que llega más tarde. | Póngalo debajo, o sobre la página.',
	'finding.slot-empty': '{resource} guarda {width} × {height} y queda vacío',
	'finding.slot-empty.detail': 'Sitio para algo que nunca llega.',
	'finding.slot-empty.advice': 'Pregunte de quién es ese sitio y por qué no se llena. | Quítelo de la plantilla.',
	'finding.step-slow': '{resource}: lo siguiente se pinta después de {ms}',
	'finding.step-slow.detail': 'Una respuesta de más de 200 ms se nota.',
	'finding.step-slow.advice': 'Pinte primero la respuesta y haga el trabajo después. | Mire qué llama el código.',
	'finding.going-back-slow': 'Volver atrás carga la página de nuevo',
	'finding.going-back-slow.detail': 'cache-control: no-store impide que los navegadores la muestren enseguida.',
	'finding.going-back-slow.advice': 'Use no-cache donde no se muestre nada secreto.',
	'finding.third-party-cost': '{resource}: {bytes} en {n, plural, one {una solicitud} other {# solicitudes}}',
	'finding.third-party-cost.detail':
		'{threadMs, plural, =0 {Ninguna tarea larga propia} other {{threadWords} de hilo principal}}{tailMs, plural, =0 {} other {, y la página tarda {tailWords} más por ello}}.',
	'finding.third-party-cost.advice':
		'Pregunte quién lo necesita y qué aporta. | Empiécelo más tarde, o cuando alguien lo pida. | Pida a su autor una versión más ligera.',
	'finding.works-late':
		'{n, plural, one {Una solicitud} other {# solicitudes}} solo {resource, select, postponed {cuando la página ya estaba en reposo} other {a la primera señal de vida}}',
	'finding.works-late.detail': '{bytes} que los valores de la carga no muestran.',
	'finding.works-late.advice': 'Juzgue la página también con cargas pacientes y con interacción.',
	'finding.broken-request': '{resource} no llega',
	'finding.broken-request.detail':
		'{status, plural, =0 {Falló: {failed}.} other {Su estado es {status, number, ::group-off}.}}',
	'finding.broken-request.advice': 'Quite la dirección o vuelva a poner el archivo.',
	'finding.console-error': 'Un error en la consola',
	'finding.console-error.detail': '{resource}',
	'finding.console-error.advice': 'Vea qué ha dejado de funcionar detrás. | Corríjalo o quite el script.',
	'finding.large-page':
		'{what, select, elements {La página tiene {n} elementos} depth {Hay elementos anidados a {n} niveles} other {Un elemento tiene {n} hijos}}',
	'finding.large-page.detail': 'El estilo, la composición y cada script que mira la página cuestan más por ello.',
	'finding.large-page.advice': 'Quite envoltorios que añade el constructor. | Cargue por partes las listas largas.',
	'finding.text-weakly-packed':
		'{n, plural, one {Un archivo de texto} other {# archivos de texto}} de {resource} {n, plural, one {va} other {van}} con gzip donde Brotli ahorra {saved}',
	'finding.text-weakly-packed.detail': 'De {bytes} que se envían. Los más grandes: {files}.',
	'finding.text-weakly-packed.advice':
		'Active Brotli en el servidor o la CDN. | Comprima una vez los archivos fijos, a la mayor calidad.',
	'finding.cookie-weight': '{bytes} de cookies suben con archivos fijos de {resource}',
	'finding.cookie-weight.detail':
		'Con {n, plural, one {un archivo} other {# archivos}}: un {share} de lo que se envía por ellos.',
	'finding.cookie-weight.advice':
		'Sirva los archivos fijos desde un servidor sin cookies. | Dé a las cookies una ruta y quite lo que nadie lee.',
	'finding.picture-old-format': '{resource} ocuparía {saved} menos como {best}',
	'finding.picture-old-format.detail':
		'{left} en vez de {bytes} como {format}, al mismo tamaño e igual a la vista (SSIM medio de 0,98 o más).',
	'finding.picture-old-format.advice':
		'Deje que la plataforma la haga y ofrézcala con el elemento picture. | Conserve el archivo antiguo para quien no pueda leerla.',
	'finding.picture-poorly-packed': '{resource} ocuparía {saved} menos mejor guardada',
	'finding.picture-poorly-packed.detail':
		'{left} en vez de {bytes}, en el mismo formato y tamaño e igual a la vista (SSIM medio de 0,98 o más).',
	'finding.picture-poorly-packed.advice': 'Guárdela con menos calidad, o deje que lo haga un plugin de imágenes.',
	'finding.animation-as-picture': '{resource} es una animación guardada como imagen',
	'finding.animation-as-picture.detail': 'Tiene {bytes}. Un vídeo de lo mismo suele ser mucho menor.',
	'finding.animation-as-picture.advice':
		'Haga de ella un vídeo corto y sin sonido que se reproduzca solo. | O muestre una imagen fija, y la animación cuando se pulse.',
	'finding.picture-same-twice': '{resource} es la misma imagen que otra',
	'finding.picture-same-twice.detail': 'Sus {bytes} ya llegaron de {first}.',
	'finding.picture-same-twice.advice': 'Use una sola dirección en todas partes.',
	'finding.font-unused-signs': '{resource} contiene {signs} signos, de los que se dibujan {drawn}',
	'finding.font-unused-signs.detail': 'Solo con esos ocuparía {saved} menos que sus {bytes}.',
	'finding.font-unused-signs.advice':
		'Haga un subconjunto con los signos que usan los idiomas del sitio. | Divídala con unicode-range, para que el resto llegue solo donde hace falta.',
	'finding.font-not-drawn': '{resource} se descarga y nada se dibuja con ella',
	'finding.font-not-drawn.detail': 'Sus {bytes} estorban a lo que se dibuja.',
	'finding.font-not-drawn.advice': 'Quite su precarga, o la regla que la pide.',
	'finding.icons-as-font': 'Se dibujan {drawn} de {signs} iconos de {resource}',
	'finding.icons-as-font.detail':
		'La fuente de iconos {family} tiene {bytes}; los iconos que se dibujan ocupan {saved} menos.',
	'finding.icons-as-font.advice': 'Ponga en la página, como SVG, los iconos que se usan. | Quite la fuente de iconos.',
	'finding.not-minified': '{resource} ocuparía {saved} menos sin espacios ni comentarios',
	'finding.not-minified.detail': 'Es un {share} de {bytes}, comprimido como lo hace el servidor.',
	'finding.not-minified.advice': 'Minifíquelo al construirlo, o deje que lo haga un optimizador.',
	'finding.for-old-browsers': '{resource} trae código para navegadores de hace mucho',
	'finding.for-old-browsers.detail':
		'{n, plural, one {Una ayuda conocida} other {# ayudas conocidas}}, entre ellas {names}: los navegadores de hoy ya tienen lo que suplen.',
	'finding.for-old-browsers.advice':
		'Constrúyalo para los navegadores de hoy. | Pida a su autor una versión moderna, o use una posterior.',
	'finding.writes-document': '{resource} escribe en el documento mientras se lee',
	'finding.writes-document.detail': 'document.write detiene la lectura hasta que llega lo que escribe.',
	'finding.writes-document.advice':
		'Ponga su elemento en el documento. | Cárguelo con async, o use una versión que lo permita.',
	'finding.press-lost':
		'{resource} se ve, y {how, select, moved {se aparta bajo el dedo} covered {está tapado cuando se pulsa} other {no hace nada cuando se pulsa}}',
	'finding.press-lost.detail': 'Se pulsó {afterMs} después de lo primero que se vio.',
	'finding.press-lost.advice':
		'Haga que funcione desde el documento: un enlace, un formulario, un elemento details. | O muéstrelo solo cuando su script esté ahí.',
	'finding.third-party-unconfirmed':
		'{why, select, unseen {No se ve nada de {resource}} other {Nadie ha confirmado {resource}}}',
	'finding.third-party-unconfirmed.detail':
		'{bytes} en {n, plural, one {una solicitud} other {# solicitudes}}{purpose, select, none {; nadie ha anotado para qué sirve} other {; anotado como: {purpose}}}.',
	'finding.third-party-unconfirmed.advice':
		'Pregunte al cliente si aún lo quiere. | Quítelo donde no, y confírmelo en el registro donde sí.',
	'finding.starts-unasked': '{resource} empieza antes de que nadie lo pida',
	'finding.starts-unasked.detail': '{purpose}: {bytes} en {n, plural, one {una solicitud} other {# solicitudes}}.',
	'finding.starts-unasked.advice':
		'Muestre en su lugar una imagen fija o un botón, y cárguelo cuando se pulse. | Compruebe que el laboratorio lo ve funcionar entonces.',
	'finding.limit.gone': 'Hecho cuando tres cargas buenas ya no lo muestran.',
	'finding.limit.most': 'Hecho cuando tres cargas buenas muestran como mucho {most}.',
	'finding.who.editor': 'Redacción',
	'finding.who.developer': 'Desarrollo',
	'finding.who.host': 'Alojamiento',
	'finding.who.third-party': 'Tercero',
	'finding.effort.hour': 'una hora',
	'finding.effort.day': 'un día',
	'finding.effort.more': 'más',
	'side.title': 'Falta el título, o es muy corto o muy largo',
	'side.description': 'Falta la descripción, o es muy corta o muy larga',
	'side.language': 'La página no dice su idioma',
	'side.viewport': 'La vista no se ajusta al dispositivo, o prohíbe ampliar',
	'side.headings': 'Títulos desordenados, o no hay un solo título principal',
	'side.robots': 'Se pide a los buscadores que dejen fuera la página',
	'side.canonical': 'La dirección canónica no se puede leer',
	'side.links': 'Enlaces sin palabras',
	'side.https': 'Sin cifrar',
	'side.deprecated': 'Llamadas que los navegadores van a retirar',
	'rewrite.block': 'sin {what}',
	'rewrite.delay': '{what} {later} más tarde',
	'rewrite.delay.input': '{what} solo al primer uso',
	'rewrite.delay.settled': '{what} solo con la página en reposo',
	'rewrite.own-host': '{what} servido desde el propio sitio',
	'rewrite.picture': '{what}{size, select, none {} other { a {size}}}{format, select, own {} other { como {format}}}',
	'rewrite.style': '{what} minificado',
	'rewrite.script': '{what} minificado',
	'rewrite.font': '{what} solo con los signos dibujados',
	'rewrite.compress': '{what, select, text {texto} other {{what}}} comprimido',
	'rewrite.header': '{what} {value, select, none {sin} other {con}} {name}',
	'rewrite.preload': '{what} precargado',
	'rewrite.preconnect': 'conexión temprana con {what}',
	'rewrite.attribute': '{what} {value, select, none {sin {name}} other {con {name}=“{value}”}}',
	'rewrite.room': 'sitio de {size} para {what}',
	'rewrite.remove': 'sin {what}',
	'rewrite.insert': 'código añadido junto a {what}',
	'rewrite.text': 'texto cambiado en {what}',
	'cause.pages': 'en {k} de {m, plural, one {una página} other {# páginas}}',
	'cause.visits': ', {visits} de las visitas',
	'cause.loads': ', en {k} de {n} cargas'
};
