/** Bytes of a text file as text, whatever it was written in, line by line: files of several programs mix encodings. */

const LINE_FEED = 10;
const LONGEST_MARK = 3;
const NOTHING = new Uint8Array(0);

/**
 * Decodes as bytes come. Each line that is valid UTF-8 (RFC 3629) is read as such, any other as Windows-1252, which
 * holds Latin-1 (WHATWG Encoding: "latin1" is a label of it). UTF-16 is known by its byte order mark.
 */
export class LineDecoder {
	/** Of the line that is not whole yet: pieces, joined once, so that long lines cost no more than short ones. */
	#rest: Uint8Array[] = [];
	#begun = false;
	#utf16: TextDecoder | null = null;
	readonly #utf8 = new TextDecoder('utf-8', { fatal: true, ignoreBOM: true });
	readonly #latin1 = new TextDecoder('windows-1252');

	/** @returns the text of all lines that are whole by now */
	write(bytes: Uint8Array): string {
		if (!this.#begun) return this.#begin(joined([...this.#rest, bytes]));
		if (this.#utf16) return this.#utf16.decode(bytes, { stream: true });
		const end = bytes.lastIndexOf(LINE_FEED) + 1;
		const whole = end === 0 ? NOTHING : joined([...this.#rest, bytes.subarray(0, end)]);
		if (end > 0) this.#rest = [];
		if (end < bytes.length) this.#rest.push(bytes.slice(end));
		return this.#decodeLines(whole);
	}

	#begin(bytes: Uint8Array): string {
		this.#rest = bytes.length < LONGEST_MARK ? [bytes] : [];
		if (this.#rest.length > 0) return '';
		const body = this.#withoutMark(bytes);
		this.#begun = true;
		return this.write(body);
	}

	/** The last line, which may lack its end. */
	end(): string {
		const rest = this.#begun ? joined(this.#rest) : this.#withoutMark(joined(this.#rest));
		this.#rest = [];
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

function joined(pieces: readonly Uint8Array[]): Uint8Array {
	if (pieces.length === 1) return pieces[0]!;
	const all = new Uint8Array(pieces.reduce((size, piece) => size + piece.length, 0));
	let at = 0;
	for (const piece of pieces) {
		all.set(piece, at);
		at += piece.length;
	}
	return all;
}
