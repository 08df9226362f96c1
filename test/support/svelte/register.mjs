/** Lets tests import Svelte components: compiled for the server, as pages are rendered before any script runs. */
import { register } from 'node:module';

register('./hooks.mjs', import.meta.url);
