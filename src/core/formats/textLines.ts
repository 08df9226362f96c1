/** Bytes of a text file as text, whatever it was written in, line by line: files of several programs mix encodings. */

const LINE_FEED = 10;

/**
 * Decodes as bytes come. Each line that is valid UTF-8 (RFC 3629) is read as such, any other as Windows-1252, which
 * holds Latin-1 (WHATWG Encoding: "latin1" is a label of it). UTF-16 is known by its byte order mark.
 */
export class LineDecoder {
	#rest: Uint8Array = new Uint8Array(0);
	#begun = false;
	#utf16: TextDecoder | null = null;
	readonly #utf8 = new TextDecoder('utf-8', { fatal: true, ignoreBOM: true });
	readonly #latin1 = new TextDecoder('windows-1252');

	/** @returns the text of all lines that are whole by now */
	write(bytes: Uint8Array): string {
		const all = joined(this.#rest, bytes);
		if (!this.#begun && all.length < 3) {
			this.#rest = all;
			return '';
		}
		const body = this.#begun ? all : this.#withoutMark(all);
		this.#begun = true;
		if (this.#utf16) {
			this.#rest = new Uint8Array(0);
			return this.#utf16.decode(body, { stream: true });
		}
		const end = body.lastIndexOf(LINE_FEED) + 1;
		this.#rest = body.slice(end);
		return this.#decodeLines(body.subarray(0, end));
	}

	/** The last line, which may lack its end. */
	end(): string {
		const rest = this.#begun ? this.#rest : this.#withoutMark(this.#rest);
		this.#rest = new Uint8Array(0);
		return this.#utf16 ? this.#utf16.decode(rest) : this.#decodeLines(rest);
	}

	#withoutMark(bytes: Uint8Array): Uint8Array {
		if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return bytes.slice(3);
		if (bytes[0] === 0xff && bytes[1] === 0xfe) this.#utf16 = new TextDecoder('utf-16le');
		if (bytes[0] === 0xfe && bytes[1] === 0xff) this.#utf16 = new TextDecoder('utf-16be');
		return bytes;
	}

	/** Whole stretches at once where they are valid; else line by line. */
	#decodeLines(bytes: Uint8Array): string {
		if (bytes.length === 0) return '';
		try {
			return this.#utf8.decode(bytes);
		} catch {
			return this.#lineByLine(bytes);
		}
	}

	#lineByLine(bytes: Uint8Array): string {
		let text = '';
		for (let from = 0; from < bytes.length;) {
			const at = bytes.indexOf(LINE_FEED, from);
			const end = at < 0 ? bytes.length : at + 1;
			text += this.#decodeLine(bytes.subarray(from, end));
			from = end;
		}
		return text;
	}

	#decodeLine(line: Uint8Array): string {
		try {
			return this.#utf8.decode(line);
		} catch {
			return this.#latin1.decode(line);
		}
	}
}

function joined(a: Uint8Array, b: Uint8Array): Uint8Array {
	if (a.length === 0) return b;
	const all = new Uint8Array(a.length + b.length);
	all.set(a);
	all.set(b, a.length);
	return all;
}
