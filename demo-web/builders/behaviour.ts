/** What pages do: the menu, the cart, the forms. The same for all builders; a plugin may break it. */

/** Needs to be called: builders do it from an inline script, as builders do. */
export const BEHAVIOUR = `window.pageStart = function () {
	var button = document.querySelector('.menu-button'), menu = document.getElementById('menu');
	if (button) button.addEventListener('click', function () {
		var open = menu.classList.toggle('open');
		button.setAttribute('aria-expanded', String(open));
	});
	document.querySelectorAll('[data-form]').forEach(function (form) {
		form.addEventListener('submit', function (event) {
			event.preventDefault();
			form.querySelector('p').textContent = 'Thank you. We will write back within a day.';
		});
	});
};
`;

export const START = 'window.pageStart && window.pageStart();';

/** The shop's own script: it waits for the document, as such scripts do. */
export const CART = `document.addEventListener('DOMContentLoaded', function () {
	var read = function () { try { return JSON.parse(localStorage.getItem('cart') || '[]'); } catch (error) { return []; } };
	document.querySelectorAll('[data-buy]').forEach(function (button) {
		button.addEventListener('click', function () {
			var cart = read();
			cart.push({ id: button.dataset.buy, name: button.dataset.name, price: button.dataset.price });
			localStorage.setItem('cart', JSON.stringify(cart));
			document.querySelector('.in-cart').textContent = cart.length + (cart.length === 1 ? ' packet' : ' packets') + ' in your cart.';
		});
	});
	var shown = document.querySelector('[data-cart]'), cart = read();
	if (shown && cart.length) shown.innerHTML = '<ul>' + cart.map(function (one) { return '<li>' + one.name + ', ' + one.price + '</li>'; }).join('') + '</ul><p>Together ' + cart.reduce(function (sum, one) { return sum + Number(one.price); }, 0).toFixed(2) + '</p>';
});
`;
