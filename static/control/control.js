// The same work each time: a page without any would not show a slower processor.
let value = 1;
for (let i = 0; i < 4000000; i++) value = (value * 48271) % 2147483647;
const list = document.getElementById('list');
for (let i = 1; i <= 60; i++) {
	const item = document.createElement('li');
	item.textContent = 'Row ' + i + ' of ' + (60 + (value % 1));
	list.append(item);
}
