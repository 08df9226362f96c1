/** What few loads need of a page: put into the lab's world of it when it is asked for. */
import { drawn } from './drawn';
import { tryToSend } from './forms';
import { headFacts } from './head';
import { survey, wordsAt } from './survey';

Object.assign(globalThis.zafra!, { survey, wordsAt, tryToSend, headFacts, drawn });
