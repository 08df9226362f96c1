/**
 * Puts held elements into their places again: at the first sign of life of a visitor, or once the page has loaded and
 * nothing has been fetched for a second. Scripts are made anew, since a copy of one does not run in its order.
 */
export const HOLD_SCRIPT = `(function () {
	function put(until) {
		document.querySelectorAll('template[data-held-until="' + until + '"]').forEach(function (held) {
			var parts = held.content.cloneNode(true);
			parts.querySelectorAll('script').forEach(function (old) {
				var made = document.createElement('script');
				for (var i = 0; i < old.attributes.length; i++) made.setAttribute(old.attributes[i].name, old.attributes[i].value);
				made.async = old.hasAttribute('async');
				made.text = old.text;
				old.replaceWith(made);
			});
			held.replaceWith(parts);
		});
	}
	var kinds = ['pointerdown', 'pointermove', 'keydown', 'touchstart', 'wheel', 'scroll'];
	function alive() {
		kinds.forEach(function (kind) { removeEventListener(kind, alive, true); });
		put('input');
	}
	kinds.forEach(function (kind) { addEventListener(kind, alive, { capture: true, passive: true }); });
	addEventListener('load', function () {
		var seen = -1;
		var timer = setInterval(function () {
			var now = performance.getEntriesByType('resource').length;
			if (now === seen) { clearInterval(timer); put('settled'); }
			seen = now;
		}, 1000);
	});
})();`;
