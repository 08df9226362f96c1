declare module 'virtual:visit-script' {
	/** Bundled and minified. */
	const text: string;
	export default text;
}
