/** Selectors that somebody typed, looked at before any page is: Selectors Level 4, as the browser reads them. */
import { parse, type CssNode, type Selector as SelectorNode } from 'css-tree';
import * as v from 'valibot';

/** What is wrong with a selector, in words; null for one that a browser can read. */
export function selectorProblem(text: string): string | null {
	let fault: string | null = null;
	let tree: CssNode;
	try {
		tree = parse(text, { context: 'selectorList', onParseError: (error) => (fault ??= error.message) });
	} catch (error) {
		return wordsFor(text, (error as Error).message);
	}
	if (fault !== null) return wordsFor(text, fault);
	if (tree.type !== 'SelectorList' || tree.children.isEmpty) return wordsFor(text, 'nothing is selected');
	for (const selector of tree.children.toArray())
		if (hangs(selector as SelectorNode)) return wordsFor(text, 'an element is missing beside a combinator');
	return null;
}

/** `a >` and `> a` read as lists of parts, but name no element. */
function hangs({ children }: SelectorNode): boolean {
	return children.isEmpty || children.first!.type === 'Combinator' || children.last!.type === 'Combinator';
}

const wordsFor = (text: string, fault: string) =>
	`“${text}” is no selector: ${fault.charAt(0).toLowerCase()}${fault.slice(1)}. Write it as for a style sheet, for example form.search or #finder.`;

/** For schemas of what is typed now; what is stored already is read as it is. */
export const allSelectors = <Input>(selectorsOf: (input: Input) => readonly string[]) =>
	v.rawCheck<Input>(({ dataset, addIssue }) => {
		if (!dataset.typed) return;
		const problem = selectorsOf(dataset.value).map(selectorProblem).find(Boolean);
		if (problem) addIssue({ message: problem });
	});
